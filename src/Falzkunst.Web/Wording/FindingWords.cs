using Falzkunst.Core.Designs;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Projects;

namespace Falzkunst.Web.Wording;

/// <summary>What the checks point out, in a sentence with its numbers.</summary>
public static class FindingWords
{
    public static string For(Finding f, Units units)
    {
        if (f.Sentence is not null) return f.Sentence;
        var word = f.Operation?.Word() ?? "";
        string Mm(int i) => i < f.LengthsMm.Length ? Length.Show(f.LengthsMm[i], units) : "";
        return f.Code switch
        {
            FindingCodes.OnNoPiece => $"A {word} line of {Mm(0)} lies on no piece.",
            FindingCodes.NoLength when f.Place is not null => $"A line of no length was left out ({f.Place}).",
            FindingCodes.NoLength => $"A {word} line on {f.Name} has no length.",
            FindingCodes.OpenOutline => $"A cut on {f.Name} is open by {Length.ShowFine(f.LengthsMm[0], units)} and will not come out.",
            FindingCodes.AcrossPieces => $"A {word} line of {f.Name} runs {Mm(0)} over its edge onto {f.Other}.",
            FindingCodes.PastEdge => $"A {word} line on {f.Name} runs {Mm(0)} of its {Mm(1)} past the edge.",
            FindingCodes.DoubledLine when f.Place is not null => $"A line lay exactly on another ({f.Place}); it was left out, since cutting twice tears.",
            FindingCodes.DoubledLine => $"Two {word} lines on {f.Name} lie on each other; run twice there, the paper tears.",
            FindingCodes.NoArea => $"{f.Name} is a line without any area: nothing comes off the machine of it, and it lies on no sheet.",
            FindingCodes.InsideAnother => $"{f.Name} lies inside {f.Other} on the same stock: a layer of its own, or an opening?",
            FindingCodes.LettersMissing => $"The face of the words on {f.Name} has no {f.Other}: nothing stands there.",
            FindingCodes.WordsTooWide => $"{(string.IsNullOrEmpty(f.Other) ? $"Words on {f.Name} are" : $"“{f.Other}” on {f.Name} is")} {Mm(0)} wider than the {Mm(1)} there are.",
            FindingCodes.WordsFallApart => $"{f.Name} falls into {f.Other} pieces: a bar, bridges, closer letters or a layer under them would hold them.",
            FindingCodes.CoarsePicture => $"The picture on {f.Name} is {Mm(1)} wide and has {f.Other} dots to the inch there: they show. It bears {Mm(0)}.",
            FindingCodes.CannotFollow => $"{f.Name}: {FollowWords.For(Enum.TryParse<FollowFault>(f.Other, out var fault) ? fault : FollowFault.SourceGone)}",
            FindingCodes.NotAllChecked when f.Name is not null => $"{f.Name} has more lines than are checked; what is wrong with some of them may not be listed.",
            FindingCodes.NotAllChecked => "There are more lines than are checked; what is wrong with some of them may not be listed.",
            _ => f.Code,
        };
    }
}
