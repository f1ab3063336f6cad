using Falzkunst.Core.Budgets;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Printing.Registration;
using Falzkunst.Formats;
using Falzkunst.Formats.Pictures;
using Falzkunst.Web.Reading;

namespace Falzkunst.Web.Desk;

/// <summary>Somebody's own scan or photo of a page with marks.</summary>
/// <param name="Ink">How dark it is.</param>
/// <param name="DotsPerMm">As it states its resolution; null where it does not.</param>
public sealed record OwnScan(InkRaster Ink, double? DotsPerMm)
{
    /// <summary>Resolutions below this are what cameras write who know of none, dots to the inch.</summary>
    private const double LeastStated = 100;

    public static OwnScan Of(ReadPicture picture) => new(InkRaster.OfDarkness(picture.Image), picture.DotsPerInch is >= LeastStated and var dots ? dots / 25.4 : null);

    /// <summary>A part of it round a place, small, as a picture in a page's own text.</summary>
    /// <param name="at">Its middle, dots.</param>
    /// <param name="side">Its side, dots.</param>
    public string CropAt(Point at, double side) => MarksDesk.InText(PictureWriter.Fitted(MarksDesk.Square(Ink, at - new Point(side, side) * 0.5, side), 160));
}

/// <summary>Reads pictures of pages in the reading process; nothing of them is kept.</summary>
public sealed class ScanDesk(IPictureReader reader)
{
    /// <summary>Pictures read at once; each takes up to half a gigabyte.</summary>
    private static readonly SemaphoreSlim Places = new(1);

    /// <summary>Works on an uploaded picture.</summary>
    /// <exception cref="NotDone">It is no picture that can be read, in a sentence.</exception>
    public async Task<T> WithAsync<T>(IFormFile? file, Func<OwnScan, T> work, CancellationToken stop)
    {
        if (file is null || file.Length == 0) throw new NotDone("Choose a scan or a photo of the page.");
        if (file.Length > BudgetLimits.Reading.Bytes) throw new NotDone($"The file has {file.Length / 1e6:0.0} MB; a picture may have {BudgetLimits.Reading.Bytes / 1_000_000} at most. Scan with 300 dots to the inch, or save it as JPEG.");
        using var content = new MemoryStream();
        await file.CopyToAsync(content, stop);
        await Places.WaitAsync(stop);
        try
        {
            var read = await reader.ReadPictureAsync(content.ToArray(), BudgetLimits.Reading.Time, stop);
            return await Task.Run(() => work(OwnScan.Of(read)), stop);
        }
        catch (ReadRefused refused)
        {
            throw new NotDone(refused.Message);
        }
        finally
        {
            Places.Release();
        }
    }
}
