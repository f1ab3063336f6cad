using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Building;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Geometry.Overlay;
using Falzkunst.Core.Measures;
using Falzkunst.Core.Refusals;
using Falzkunst.Web.Wording;

namespace Falzkunst.Web.Pictures;

/// <summary>A way to make pieces one, carried out to be looked at.</summary>
/// <param name="Words">What it is called.</param>
/// <param name="Action">The action that chooses it.</param>
/// <param name="Picture">Content of an SVG picture of 132 by 62; null where it cannot be done.</param>
/// <param name="Facts">How many parts come of it, or why none do.</param>
/// <param name="Note">What would be lost on the way; null for nothing.</param>
public sealed record JoinPreview(string Words, BenchAction Action, string? Picture, string Facts, string? Note)
{
    /// <summary>Pieces with more segments together are joined unseen: four ways to join them would take longer than a page may.</summary>
    private const int MostSegments = 2000;

    /// <summary>And no more pieces than so many, since each is joined to what came of the others.</summary>
    private const int MostPieces = 40;

    /// <summary>All ways for some pieces, each with the lowest of them as the one that remains.</summary>
    public static IReadOnlyList<JoinPreview> For(Design design, ImmutableArray<string> pieces, Func<Piece, string> colour, Units units)
    {
        var lowest = design.Pieces.First(p => pieces.Contains(p.Id)).Id;
        var isSeen = pieces.Length <= MostPieces && pieces.Sum(p => design.Require(p).Paper.Rings.Sum(r => r.Segments.Length)) <= MostSegments;
        return
        [
            One("united", Combination.Unite),
            One(pieces.Length == 2 ? "upper taken out" : "upper ones taken out", Combination.Subtract),
            One("what they share", Combination.Intersect),
            Tried("cut to the topmost", new CropAction(), () => Combining.Crop(design, pieces, design.Pieces.Last(p => pieces.Contains(p.Id)).Id)),
        ];

        JoinPreview One(string words, Combination how) => Tried(words, new CombineAction(how), () => Combining.Combine(design, how, pieces, lowest, WhatCuts.Goes));

        JoinPreview Tried(string words, BenchAction action, Func<Combined> work)
        {
            if (!isSeen) return new(words, action, "", "shown once it is done", null);
            try
            {
                var made = work();
                var shown = made.Made.Select(made.Design.Require).ToList();
                var lost = made.LostMm > 0.5 || made.LostItems.Length > 0
                    ? $"Lost where no paper is left: {string.Join(", ", [.. made.LostMm > 0.5 ? new[] { $"{Length.Show(made.LostMm, units)} of lines" } : [], .. made.LostItems])}." : null;
                return new(words, action, BuildPicture.Of(shown, colour), $"{(shown.Count == 1 ? "one piece" : $"{shown.Count} pieces")}{(lost is null ? "" : ", some lines lost")}", lost);
            }
            catch (EditRefused refused)
            {
                return new(words, action, null, "not as they lie", ReasonWords.For(refused, units));
            }
            catch (BudgetSpent)
            {
                return new(words, action, null, "too intricate", null);
            }
        }
    }
}
