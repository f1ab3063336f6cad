namespace Falzkunst.Data.Rows;

/// <summary>A picture that a workshop brought in, kept once however often it is used.</summary>
public sealed class PictureRow
{
    public Guid Owner { get; set; }

    /// <summary>SHA-256 of the file.</summary>
    public required string Content { get; set; }

    /// <summary>The file as it came.</summary>
    public required byte[] File { get; set; }
    public required string MediaType { get; set; }

    /// <summary>Its dots for the screen, upright and in sRGB, as PNG of our own making, no side longer than is looked at.</summary>
    public required byte[] Screen { get; set; }
    public int PixelsAcross { get; set; }
    public int PixelsDown { get; set; }

    /// <summary>Dots to the inch, where the file says them.</summary>
    public double? DotsPerInch { get; set; }
    public DateTimeOffset At { get; set; }
}
