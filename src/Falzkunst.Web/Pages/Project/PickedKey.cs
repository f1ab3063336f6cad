using Falzkunst.Core.Designs;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.Pages.Project;

/// <summary>
/// What is picked, as it stands in addresses and headers: pieces as "p1,p4", lines of one piece as "p1:l3,l5", "none" where
/// nothing is.
/// </summary>
public static class PickedKey
{
    public const string None = "none";
    private const int LongestKey = 20_000;

    public static string Write(Picked picked) => picked.IsEmpty ? None
        : string.Join(',', picked.Pieces) + (picked.IsLines ? ":" + string.Join(',', picked.Lines) : "");

    /// <summary>
    /// What a key names and is still there; the first piece where there is no key, as on a page just opened. Where all of it is
    /// gone nothing is picked, so that a second Delete does not take a piece that nobody chose.
    /// </summary>
    public static Picked Read(string? key, Design design)
    {
        if (key == None || design.Pieces.IsEmpty) return Picked.Nothing;
        if (string.IsNullOrEmpty(key)) return Picked.Whole(design.Pieces[0].Id);
        if (key.Length > LongestKey) return Picked.Nothing;
        var parts = key.Split(':');
        return new Picked([.. parts[0].Split(',')], parts.Length == 2 ? [.. parts[1].Split(',')] : []).In(design);
    }
}
