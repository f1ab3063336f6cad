using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Pictures;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Tracing;
using Falzkunst.Data.Projects;
using Falzkunst.Formats;
using Falzkunst.Formats.Pictures;
using Falzkunst.Web.Reading;

namespace Falzkunst.Web.Desk;

/// <summary>A trace with the picture it is of.</summary>
/// <param name="Lines">What was traced, in dots of the picture that it was traced from.</param>
/// <param name="PixelsAcross">Dots of that across.</param>
/// <param name="PixelsDown">Dots of that down.</param>
public sealed record PictureTraced(Traced Lines, int PixelsAcross, int PixelsDown);

/// <summary>Keeps pictures, shows them after their steps, and traces them.</summary>
public sealed class PictureDesk(PictureStore store, IPictureReader reader, PictureCache cache)
{
    /// <summary>Longest side of a picture on the screen, dots. Everything that is tried out live works on this.</summary>
    public const int ScreenSide = 1600;

    /// <summary>Carrying out steps and tracing a whole picture may take so long.</summary>
    private static readonly BudgetLimits Limits = BudgetLimits.Reading with { Time = TimeSpan.FromSeconds(25), Work = 20_000_000_000 };

    /// <summary>Whole pictures worked on at once; each takes up to a gigabyte.</summary>
    private static readonly SemaphoreSlim Places = new(2);

    /// <summary>Reads a picture in the reading process and keeps it; one that is kept already is not read again.</summary>
    /// <exception cref="ReadRefused">It is none that can be read.</exception>
    public async Task<PictureFile> KeepAsync(byte[] file, CancellationToken stop)
    {
        if (await store.FindAsync(ProjectDesk.Owner, ContentHash.Compute(file), stop) is { } known) return known;
        return await InPlaceAsync(async () =>
        {
            var read = await reader.ReadPictureAsync(file, BudgetLimits.Reading.Time, stop);
            var screen = PictureWriter.Png(PictureWriter.Fitted(read.Image, ScreenSide));
            return await store.KeepAsync(ProjectDesk.Owner, file, new PictureForms(read.MediaType, screen, read.Image.Width, read.Image.Height, read.DotsPerInch), stop);
        }, stop);
    }

    /// <summary>A picture that is not kept, small, as PNG; null where it cannot be read.</summary>
    public async Task<byte[]?> SmallAsync(byte[] file, int side, CancellationToken stop)
    {
        try
        {
            return PictureWriter.Png(PictureWriter.Fitted((await reader.ReadPictureAsync(file, BudgetLimits.Reading.Time, stop)).Image, side));
        }
        catch (ReadRefused)
        {
            // Bringing it in says why.
            return null;
        }
    }

    /// <summary>A picture after its steps as PNG for the screen.</summary>
    public async Task<byte[]> PngAsync(CardPicture picture, int side, CancellationToken stop)
    {
        var key = $"{picture.Key} {side}";
        if (cache.Png(key) is { } known) return known;
        var png = PictureWriter.Png(PictureWriter.Fitted(await ScreenAsync(picture, stop), side));
        cache.Keep(key, png);
        return png;
    }

    /// <summary>A picture after its steps, as large as the screen shows it.</summary>
    /// <exception cref="EditRefused">Its dots are not there any more, or its steps take too long.</exception>
    public async Task<PixelImage> ScreenAsync(CardPicture picture, CancellationToken stop)
    {
        var from = picture.Steps.Length;
        PictureState? state = null;
        while ((state = cache.State(KeyOf(picture, from))) is null && from > 0) from--;
        if (state is null)
        {
            var png = await store.ScreenAsync(ProjectDesk.Owner, picture.Content, stop) ?? throw new EditRefused(Reason.PictureGone);
            var image = PictureWriter.FromPng(png);
            state = new PictureState(image, image);
            cache.Keep(KeyOf(picture, 0), state.Value);
        }
        return (await Task.Run(() =>
        {
            var budget = new Budget(Limits, stop);
            var now = state.Value;
            for (var i = from; i < picture.Steps.Length; i++)
            {
                now = Within(() => PictureSteps.After(now, picture.Steps[i], budget));
                cache.Keep(KeyOf(picture, i + 1), now);
            }
            return now;
        }, stop)).Now;
    }

    private static string KeyOf(CardPicture picture, int steps) => (picture with { Steps = picture.Steps[..steps] }).Key;

    /// <summary>Traces a picture as the screen shows it.</summary>
    public async Task<PictureTraced> TraceShownAsync(CardPicture picture, TraceSettings settings, CancellationToken stop)
    {
        var image = await ScreenAsync(picture, stop);
        var key = $"{picture.Key} {picture.MmPerDot:R} {settings}";
        var lines = cache.Trace(key);
        if (lines is null)
        {
            // What is seen of it is the same however near curves keep to it.
            var how = settings.InDots(picture.SizeMm.Width / image.Width);
            var seenKey = $"{picture.Key} {picture.MmPerDot:R} {settings with { SmoothMm = 0, BorderMm = 0 }}";
            lines = await Task.Run(() => Within(() =>
            {
                var budget = new Budget(Limits, stop);
                if (cache.Seen(seenKey) is not { } seen) cache.Keep(seenKey, seen = PictureTrace.See(image, how, budget));
                return seen.Fit(how.Tolerance, budget);
            }), stop);
            cache.Keep(key, lines);
        }
        return new PictureTraced(lines, image.Width, image.Height);
    }

    /// <summary>A picture after its steps with all its dots.</summary>
    /// <exception cref="EditRefused">Its dots are not there any more, or its steps take too long.</exception>
    public async Task<PixelImage> WholeAsync(CardPicture picture, CancellationToken stop)
    {
        if (IsSoon(picture)) return await ScreenAsync(picture, stop);
        return await InPlaceAsync(() => ReadWholeAsync(picture, stop), stop);
    }

    /// <summary>Works on a whole picture when there is a place for it.</summary>
    private static async Task<T> InPlaceAsync<T>(Func<Task<T>> work, CancellationToken stop)
    {
        await Places.WaitAsync(stop);
        try
        {
            return await work();
        }
        finally
        {
            Places.Release();
        }
    }

    private async Task<PixelImage> ReadWholeAsync(CardPicture picture, CancellationToken stop)
    {
        var file = await store.FileAsync(ProjectDesk.Owner, picture.Content, stop) ?? throw new EditRefused(Reason.PictureGone);
        var whole = (await reader.ReadPictureAsync(file, BudgetLimits.Reading.Time, stop)).Image;
        return await Task.Run(() => Within(() => PictureSteps.Apply(whole, picture.Steps, new Budget(Limits, stop))), stop);
    }

    /// <summary>Traces all of a picture's dots.</summary>
    /// <param name="picture">The picture.</param>
    /// <param name="settings">How it is traced.</param>
    /// <param name="stop">Cancels.</param>
    /// <param name="progress">Told how far it is, 0 to 1.</param>
    /// <returns>What was traced, in dots of the picture after its steps.</returns>
    public async Task<Traced> TraceAsync(CardPicture picture, TraceSettings settings, CancellationToken stop, Action<double>? progress = null)
    {
        if (IsSoon(picture)) return (await TraceShownAsync(picture, settings, stop)).Lines;
        return await InPlaceAsync(async () =>
        {
            progress?.Invoke(AtRead / 4);
            var image = await ReadWholeAsync(picture, stop);
            progress?.Invoke(AtRead);
            return await Task.Run(() => TraceOf(image, picture, settings, stop), stop);
        }, stop);
    }

    /// <summary>Reading a picture and its steps take about this share of tracing it.</summary>
    private const double AtRead = 0.4;

    /// <summary>The screen shows the picture whole, so that it is traced in a moment.</summary>
    public static bool IsSoon(CardPicture picture) => Math.Max(picture.PixelsAcross, picture.PixelsDown) <= ScreenSide;

    private static Traced TraceOf(PixelImage image, CardPicture picture, TraceSettings settings, CancellationToken stop) =>
        Within(() => PictureTrace.Run(image, settings.InDots(picture.SizeMm.Width / image.Width), new Budget(Limits, stop)));

    private static T Within<T>(Func<T> work)
    {
        try
        {
            return work();
        }
        catch (BudgetSpent)
        {
            throw new EditRefused(Reason.TooIntricate);
        }
    }
}
