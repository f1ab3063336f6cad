using System.Collections.Immutable;
using Falzkunst.Core.Actions;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Core.Texts;

namespace Falzkunst.Core.Tests.Texts;

/// <summary>Faces whose letters are finer than a text may hold.</summary>
public sealed class FineLetterTests
{
    /// <summary>A face in which every letter has so many segments.</summary>
    private sealed class FineFaces(int segments) : IFaces
    {
        public ImmutableArray<FaceName> All { get; } = [new("fine", "Fine", FaceKind.Display)];

        public ShapedText? Shape(string face, string words, params IReadOnlyList<string> forms)
        {
            var letters = words.Where(c => !char.IsWhiteSpace(c)).Distinct().ToList();
            var comb = Path.Polyline([.. Enumerable.Range(0, segments).Select(i => new Point(i % 2 * 0.5, -i / (double)segments)), new(0.6, -0.5)], closed: true);
            return new ShapedText(
                [.. letters.Select(_ => new Glyph([comb])), new Glyph([])],
                [.. words.Split('\n').Select(l => new ShapedParagraph([.. l.Select((c, i) => new ShapedGlyph(letters.IndexOf(c) is >= 0 and var at ? at : letters.Count, i, 0.7, 0, 0))], false))],
                false, []);
        }

        public ImmutableArray<string> FormsOf(string face) => [];
    }

    private static Project Written(int segments, string words)
    {
        var drawer = Given.Drawer with { Faces = new FineFaces(segments) };
        var project = Given.ProjectOf(Given.Piece("p1", 200, 80));
        return Edits.Apply(project, new WriteAction(words, "fine", 4, Operation.Draw).For(new BenchContext(project, Picked.OfPieces(["p1"]), drawer)), drawer);
    }

    [Fact]
    public void Letters_count_once_for_what_is_kept_and_as_often_as_they_stand_for_what_is_drawn()
    {
        var most = TextItem.MostSegments / 2;
        Assert.Equal("ab", Written(most, "ab").Design.Pieces[0].Items.OfType<TextItem>().Single().Words);
        Assert.Equal((Reason.LettersTooFine, "face"), Refused(most, "abc"));
        Assert.NotNull(Written(most, "aaaaaaaaaa"));
        Assert.Equal((Reason.LettersTooFine, "words"), Refused(most, "aaaaaaaaaab"));

        static (Reason, string?) Refused(int segments, string words)
        {
            var refused = Assert.Throws<EditRefused>(() => Written(segments, words));
            return (refused.Reason, refused.Field);
        }
    }
}
