using Falzkunst.Core.Designs;

namespace Falzkunst.Web.Wording;

/// <summary>Why a piece keeps its last form, in a sentence.</summary>
public static class FollowWords
{
    public static string For(FollowFault fault) => fault switch
    {
        FollowFault.SourceGone => "What it followed is no longer there; it keeps its last form.",
        FollowFault.NothingLeft => "Nothing would be left of it as things are now; it keeps its last form.",
        _ => "What it follows has become too intricate to work out; it keeps its last form.",
    };
}
