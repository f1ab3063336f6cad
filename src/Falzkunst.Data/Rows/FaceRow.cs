namespace Falzkunst.Data.Rows;

/// <summary>A face that a workshop brought in, as it came.</summary>
public sealed class FaceRow
{
    public Guid Owner { get; set; }

    /// <summary>"own-" and the first digits of the content's hash.</summary>
    public required string Key { get; set; }
    public required string Name { get; set; }

    /// <summary>A single-line face.</summary>
    public bool IsStroke { get; set; }
    public required byte[] Content { get; set; }
    public DateTimeOffset At { get; set; }
}
