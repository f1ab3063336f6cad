using System.Collections.Immutable;
using System.Globalization;
using Falzkunst.Core.Geometry;
using Falzkunst.Core.Refusals;

namespace Falzkunst.Core.Designs;

/// <summary>One physical bit of one stock: an outline, and the items on it.</summary>
/// <param name="Id">Unique in its design and never used again.</param>
/// <param name="Name">Name for people.</param>
/// <param name="Stock">Key of its stock.</param>
/// <param name="Quantity">How many are wanted; 0 leaves it out for now.</param>
/// <param name="Place">From the piece's own coordinates to the card's, mm.</param>
/// <param name="Outline">The line that bounds it; of a new piece its upper left corner is at 0, 0, of a reworked one near it.</param>
/// <param name="Items">What is on it, lowest first.</param>
public sealed record Piece(string Id, string Name, string Stock, int Quantity, Affine Place, Line Outline, ImmutableArray<Item> Items)
{
    private Memo<(Line Outline, ImmutableArray<Item> Items), Lined> _lined;
    private Memo<ImmutableArray<Path>, Paper> _paper;
    private Memo<ImmutableArray<Path>, PieceShape> _shape;
    private Memo<ImmutableArray<Path>, PieceShape> _own;

    /// <summary>Number of the item that comes next; ids are never used twice.</summary>
    public int NextItem { get; init; } = 1;

    /// <summary>Not shown on the light table; it is made all the same.</summary>
    public bool Hidden { get; init; }

    /// <summary>Its shape and place cannot be changed until it is unlocked.</summary>
    public bool Locked { get; init; }

    /// <summary>How it may be turned on its sheet.</summary>
    public AllowedTurns AllowedTurns { get; init; }

    /// <summary>It is the card itself, made from the card's size and folds, and is asked about when those change.</summary>
    public bool IsBase { get; init; }

    /// <summary>What its outline and openings follow from; null for a piece that stands for itself.</summary>
    public Derivation? Follows { get; init; }

    /// <summary>It is made once for each row of this; null for a piece that is always the same.</summary>
    public NameList? List { get; init; }

    /// <summary>The art file it came from; null for pieces drawn here.</summary>
    public Guid? Art { get; init; }

    /// <summary>A piece of some lines, the first its outline; they get ids of this piece, in their order.</summary>
    public static Piece FromLines(string id, string name, string stock, Affine place, IEnumerable<Line> lines)
    {
        var numbered = lines.Select((l, i) => l with { Id = ItemId(i + 1) }).ToList();
        return new Piece(id, name, stock, 1, place, numbered[0], [.. numbered.Skip(1)]) { NextItem = numbered.Count + 1 };
    }

    /// <summary>It is cut through and nothing else, so that its face and its back are the same.</summary>
    public bool IsOnlyCut => !Outline.MarksFace && !Items.Any(i => i.MarksFace);

    /// <summary>Paper smaller than this is a scrap that a stray line left, mm².</summary>
    public const double LeastAreaMm2 = 0.01;

    /// <summary>It has no paper to speak of, and lies on no sheet.</summary>
    public bool IsScrap => Area < LeastAreaMm2;

    /// <summary>Some of it is made in this run; a piece of which every line is left out takes no paper.</summary>
    public bool IsMade => !Drawn.All(l => l.EffectiveSettings.LeftOut);

    /// <summary>Size of the outline, mm.</summary>
    public Box Size => Outline.Path.Bounds;

    /// <summary>What of it is paper.</summary>
    public Paper Paper => _paper.Get(Lining.Rings, AreSame, () => new Paper(Outline.Path, Lining.Rings[1..]));

    /// <summary>The outline and the openings, by the lines that they are.</summary>
    public ImmutableArray<Line> RingLines
    {
        get
        {
            var cut = CutOut.ToImmutableArray();
            return [Outline, .. Paper.OpeningNumbers.Select(i => cut[i])];
        }
    }

    /// <summary>Area of paper in mm².</summary>
    public double Area => Paper.Area;

    /// <summary>Its own lines, the outline first.</summary>
    public ImmutableArray<Line> Lines => Lining.Own;

    /// <summary>All lines, those included that follow from other items; the outline first, the others from the lowest.</summary>
    public ImmutableArray<Line> Drawn => Lining.Drawn;

    /// <summary>The paths of <see cref="Drawn"/>.</summary>
    public PieceShape Shape => Shaped(ref _shape, Lining.DrawnPaths);

    /// <summary>The paths of <see cref="Lines"/>.</summary>
    public PieceShape OwnShape => Shaped(ref _own, Lining.OwnPaths);

    /// <summary>What a line is to the piece.</summary>
    public LineRole RoleOf(Line line) =>
        ReferenceEquals(line, Outline) || line.Id == Outline.Id ? LineRole.Outline
        : line is { IsCutThrough: true, Path.IsClosed: true } ? LineRole.Opening : LineRole.Inner;

    /// <summary>The line of an id; null where none is on the piece.</summary>
    public Line? Find(string line) => Worked(line) as Line;

    /// <summary>What a tool runs along, by id; null where none is on the piece.</summary>
    public WorkedItem? Worked(string item) => Lining.ById.GetValueOrDefault(item);

    /// <summary>Lines of its own, to work on their paths.</summary>
    /// <exception cref="EditRefused">One of them is not on the piece or follows from something else, or there are none.</exception>
    public ImmutableArray<Line> Require(ImmutableArray<string> lines)
    {
        RequireWorked(lines);
        return lines.All(l => Lining.ById[l] is Line) ? [.. lines.Select(l => (Line)Lining.ById[l])] : throw new EditRefused(Reason.FollowsEdge);
    }

    /// <exception cref="EditRefused">One of them is not on the piece, or there are none.</exception>
    public void RequireWorked(ImmutableArray<string> items)
    {
        if (items.IsDefaultOrEmpty || !items.All(Lining.ById.ContainsKey)) throw new EditRefused(Reason.LinesGone);
    }

    /// <summary>The piece with further items on top of the others, which get ids of their own here.</summary>
    public Piece Plus(params IEnumerable<Item> items)
    {
        var numbered = items.Select((item, i) => item with { Id = ItemId(NextItem + i) }).ToList();
        return this with { Items = [.. Items, .. numbered], NextItem = NextItem + numbered.Count };
    }

    /// <summary>The piece with all that tools run along as a change leaves it; what stays equal stays the same object.</summary>
    public Piece EachWorked(Func<WorkedItem, WorkedItem> change)
    {
        var items = Items.ToBuilder();
        var isOther = false;
        for (var i = 0; i < items.Count; i++)
        {
            if (items[i] is not WorkedItem item || change(item) is var now && now == item) continue;
            items[i] = now;
            isOther = true;
        }
        var outline = (Line)change(Outline);
        return isOther || outline != Outline ? this with { Outline = outline, Items = isOther ? items.ToImmutable() : Items } : this;
    }

    /// <summary>The piece with some of what tools run along changed.</summary>
    public Piece EachWorked(IEnumerable<string> some, Func<WorkedItem, WorkedItem> change)
    {
        var ids = some.ToHashSet();
        return EachWorked(item => ids.Contains(item.Id) ? change(item) : item);
    }

    /// <summary>The piece with some of its lines changed.</summary>
    public Piece EachLine(IEnumerable<string> some, Func<Line, Line> change) => EachWorked(some, item => item is Line line ? change(line) : item);

    /// <summary>The piece without some of its items.</summary>
    public Piece Without(IEnumerable<string> items)
    {
        var gone = items.ToHashSet();
        return this with { Items = [.. Items.Where(i => !gone.Contains(i.Id))] };
    }

    /// <summary>The piece with everything on it under a map of its own coordinates.</summary>
    public Piece Under(Affine map) => this with { Outline = Outline.Under(map), Items = [.. Items.Select(i => i.Under(map))], Follows = Follows?.Under(map) };

    /// <summary>The piece with another outline and other openings in the place of those that follow; the rest of it stays.</summary>
    /// <param name="outline">The outline, in the piece's coordinates.</param>
    /// <param name="openings">The openings.</param>
    /// <param name="follows">What they follow from.</param>
    public Piece WithForm(Path outline, ImmutableArray<Path> openings, Derivation follows)
    {
        var ids = follows.Openings;
        var paths = ids.Zip(openings).ToDictionary(z => z.First, z => z.Second);
        var kept = EachLine(paths.Keys, l => l.Path.Equals(paths[l.Id]) ? l : l with { Path = paths[l.Id] }).Without(ids.Skip(openings.Length));
        var more = kept.Plus(openings.Skip(ids.Length).Select(o => new Line("", o, Operation.Cut, Look.DrawnHere, null, null)));
        return more with
        {
            Outline = Outline.Path.Equals(outline) ? Outline : Outline with { Path = outline },
            Follows = follows with { Openings = [.. ids.Take(openings.Length), .. Enumerable.Range(kept.NextItem, more.NextItem - kept.NextItem).Select(ItemId)] },
        };
    }

    /// <summary>The same piece in the same place, with the upper left corner of its outline at 0, 0 of its own coordinates.</summary>
    public Piece AtHome()
    {
        var corner = Size.Min;
        return corner == default ? this : Under(Affine.Move(corner * -1)) with { Place = Affine.Move(corner).Then(Place) };
    }

    internal static string ItemId(int number) => string.Create(CultureInfo.InvariantCulture, $"l{number}");

    private IEnumerable<Line> CutOut => Drawn.Skip(1).Where(l => l is { IsCutThrough: true, Path.IsClosed: true });

    private Lined Lining => _lined.Get((Outline, Items), static (a, b) => ReferenceEquals(a.Outline, b.Outline) && a.Items == b.Items, () => new Lined(this));

    private static PieceShape Shaped(ref Memo<ImmutableArray<Path>, PieceShape> memo, ImmutableArray<Path> paths) => memo.Get(paths, AreSame, () => new PieceShape(paths));

    private static bool AreSame(ImmutableArray<Path> a, ImmutableArray<Path> b)
    {
        if (a == b) return true;
        if (a.Length != b.Length) return false;
        for (var i = 0; i < a.Length; i++)
        {
            if (!ReferenceEquals(a[i], b[i])) return false;
        }
        return true;
    }

    /// <summary>The lines of a piece, listed once.</summary>
    private sealed class Lined
    {
        public Lined(Piece piece)
        {
            Own = [piece.Outline, .. piece.Items.OfType<Line>()];
            Drawn = Own.Length == piece.Items.Length + 1 ? Own : [piece.Outline, .. piece.Items.SelectMany(i => i.LinesOn(piece))];
            ById = piece.Items.OfType<WorkedItem>().Prepend(piece.Outline).ToDictionary(l => l.Id, StringComparer.Ordinal);
            OwnPaths = [.. Own.Select(l => l.Path)];
            DrawnPaths = Own == Drawn ? OwnPaths : [.. Drawn.Select(l => l.Path)];
            Rings = [piece.Outline.Path, .. Drawn.Skip(1).Where(l => l is { IsCutThrough: true, Path.IsClosed: true }).Select(l => l.Path)];
        }

        public ImmutableArray<Line> Own { get; }
        public ImmutableArray<Line> Drawn { get; }
        public Dictionary<string, WorkedItem> ById { get; }
        public ImmutableArray<Path> OwnPaths { get; }
        public ImmutableArray<Path> DrawnPaths { get; }

        /// <summary>The outline, then what is cut through inside it.</summary>
        public ImmutableArray<Path> Rings { get; }
    }
}
