using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Refusals;
using Falzkunst.Web.Wording;

namespace Falzkunst.Web.Pictures;

/// <summary>Something that could be built, carried out to be looked at.</summary>
/// <param name="Words">What it is called.</param>
/// <param name="Action">The action that builds it.</param>
/// <param name="Layers">Content of SVG pictures of 132 by 62: of the whole, or of each layer from the lowest.</param>
/// <param name="Facts">How many pieces or bridges, or why it cannot be built.</param>
/// <param name="Can">It can be built.</param>
public sealed record BuildPreview(string Words, BenchAction Action, ImmutableArray<string> Layers, string Facts, bool Can)
{
    /// <summary>What an action would make, as it lies on the card.</summary>
    public static BuildPreview Made(string words, BenchAction action, BenchContext c, Func<Piece, string> colour) => Tried(words, action, c, () =>
    {
        var after = Edits.Apply(c.Project, action.For(c), c.Drawer).Design;
        var made = after.Pieces.Where(p => c.Design.Find(p.Id) is null || (c.Picked.Pieces.Contains(p.Id) && !p.Hidden)).ToList();
        return ([BuildPicture.Of(made, colour)], $"{made.Count(p => c.Design.Find(p.Id) is null)} pieces");
    });

    /// <summary>A stack of papers layer by layer: with loose parts bridged, and handed down.</summary>
    public static IReadOnlyList<BuildPreview> Colours(BenchContext c, ColoursAction how, Func<string, string> colourOf)
    {
        var previews = new List<BuildPreview>();
        foreach (var (words, loose) in new[] { ("loose parts bridged", LooseParts.Bridge), ("loose parts handed down", LooseParts.HandDown) })
        {
            var action = how with { Loose = loose };
            previews.Add(Tried(words, action, c, () =>
            {
                var edit = (StackColours)action.For(c);
                var layers = ColourLayers.Find(c.Design, edit.Outline, edit.Pieces, edit.How);
                var count = loose == LooseParts.Bridge ? layers.Sum(l => l.Bridged) : layers.Sum(l => l.HandedDown);
                var facts = $"{layers.Length} layers, each one piece" + (count == 0 ? "; nothing is loose" : loose == LooseParts.Bridge ? $"; {Wording.Words.Count(count, "bridge")}" : $"; {count} handed down");
                return ([.. layers.Select(l => BuildPicture.Of([(l.Form.Openings.Prepend(l.Form.Outline), colourOf(l.Keeper.Stock))]))], facts);
            }));
            if (previews[0].Facts.EndsWith("nothing is loose", StringComparison.Ordinal)) break;
        }
        return previews;
    }

    private static BuildPreview Tried(string words, BenchAction action, BenchContext c, Func<(ImmutableArray<string> Layers, string Facts)> work)
    {
        try
        {
            var (layers, facts) = work();
            return new(words, action, layers, facts, Can: true);
        }
        catch (EditRefused refused)
        {
            return new(words, action, [], ReasonWords.For(refused, c.Units), Can: false);
        }
        catch (BudgetSpent)
        {
            return new(words, action, [], ReasonWords.For(new EditRefused(Reason.TooIntricate), c.Units), Can: false);
        }
    }
}
