using System.Collections.Immutable;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Designs.ArtSheets;
using Falzkunst.Core.Designs.Assembling;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Projects;
using Falzkunst.Core.Refusals;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Workshop;
using Falzkunst.Formats;
using Falzkunst.Web.Reading;

namespace Falzkunst.Web.Desk;

/// <summary>A file that was brought in.</summary>
/// <param name="On">The project with it.</param>
/// <param name="IsSheet">It was laid beside the project, to be chosen from.</param>
public sealed record BroughtIn(OnDesk On, bool IsSheet)
{
    /// <summary>Pictures that the file had in it.</summary>
    public ImmutableArray<DrawnPicture> Pictures { get; init; } = [];
}

/// <summary>A file that was read and not brought in yet.</summary>
/// <param name="Edit">What brings it in; null where it holds nothing but pictures.</param>
/// <param name="Keep">Keeps the file, in the transaction of that edit; null where there is nothing to keep.</param>
/// <param name="IsSheet">It is only laid beside the project, to be chosen from.</param>
/// <param name="Pictures">Pictures that the file has in it.</param>
public sealed record ReadArt(Edit? Edit, Func<Task>? Keep, bool IsSheet, ImmutableArray<DrawnPicture> Pictures);

/// <summary>A page of motifs to choose from.</summary>
/// <param name="Motifs">Those on the page.</param>
/// <param name="Total">How many there are.</param>
/// <param name="First">Number of the first on the page.</param>
/// <param name="Cut">How a file was parted into them; null where another project was.</param>
public sealed record ContactSheet(ImmutableArray<Motif> Motifs, int Total, int First, MotifCut? Cut);

/// <summary>Brings art files into projects: read, assembled by the remembered rules, kept as they came.</summary>
public sealed class ArtDesk(ProjectDesk desk, ArtStore art, ProjectStore projects, LookRuleStore rules, MotifCache motifs, IDrawingReader reader)
{
    /// <summary>Largest request with a file in it; the reader's own limit is a little lower and answers with a sentence.</summary>
    public const int LargestUpload = 24 * 1024 * 1024;

    /// <summary>A file of more motifs than this is taken for a sheet to choose from, and laid beside the project first.</summary>
    public const int SheetOfMotifs = 12;

    /// <summary>Brings a file in; a sheet of many motifs is only laid beside the project, to be chosen from.</summary>
    /// <inheritdoc cref="ReadAsync(OnDesk, string, byte[], string, CancellationToken)"/>
    /// <exception cref="StaleEdit">The project has changed meanwhile; nothing was written.</exception>
    public async Task<BroughtIn> BringInAsync(OnDesk on, int seenHead, string fileName, byte[] content, string? origin, CancellationToken stop) =>
        await DoneAsync(on, seenHead, await ReadAsync(on, fileName, content, origin, stop), stop);

    private async Task<BroughtIn> DoneAsync(OnDesk on, int seenHead, ReadArt read, CancellationToken stop)
    {
        var after = read.Edit is { } edit ? await desk.DoAsync(on, seenHead, edit, stop, read.Keep is { } keep ? _ => keep() : null) : on;
        return new BroughtIn(after, read.IsSheet) { Pictures = read.Pictures };
    }

    /// <summary>Reads a file and says what would bring it in; nothing is written but a file whose size has to be asked.</summary>
    /// <param name="on">The project as it is when that is done.</param>
    /// <param name="fileName">Name of the file.</param>
    /// <param name="content">The file.</param>
    /// <param name="origin">Whose hand it is from; null where nothing was said.</param>
    /// <param name="stop">Cancels.</param>
    /// <exception cref="ReadRefused">The file cannot be read.</exception>
    /// <exception cref="EditRefused">There is nothing in the file that could be brought in.</exception>
    /// <exception cref="SizeAsked">It is larger than anything in the drawer by far; the file is kept until its size is known.</exception>
    public async Task<ReadArt> ReadAsync(OnDesk on, string fileName, byte[] content, string? origin, CancellationToken stop)
    {
        var drawing = await reader.ReadAsync(content, BudgetLimits.Reading.Time, stop);
        var name = Named(fileName);
        // A drawing of nothing but a picture is that picture.
        if (drawing.LineCount == 0) return drawing.Pictures.IsEmpty ? throw new EditRefused(Reason.NothingInArt) : new(null, null, false, drawing.Pictures);
        var id = Guid.CreateVersion7();
        var scale = await LikelyScaleAsync(drawing, on, origin, stop);
        var sized = drawing.Scaled(scale);
        if (LikelySizes.AreAsked(sized.Extent, on.Drawer))
        {
            await art.KeepAsync(ProjectDesk.Owner, id, on.Project.Id, name, content, drawing, 1, 0, origin, [], drawing.Notes, stop);
            throw new SizeAsked(id, name, drawing.Extent.Width, drawing.Extent.Height, LikelySizes.Guess(drawing.Extent, on));
        }
        return (await AssembledAsync(on, id, name, content, sized, scale, origin, stop)) with { Pictures = sized.Pictures };
    }

    /// <summary>What a file that says no size is scaled by to begin with: as the last one from the same hand was settled, else as its lengths suggest.</summary>
    private async Task<double> LikelyScaleAsync(Drawing drawing, OnDesk on, string? origin, CancellationToken stop)
    {
        if (drawing.UnitsToInch is not { } read) return 1;
        var card = on.Value.SetOut.Card;
        return await art.UnitsOfAsync(ProjectDesk.Owner, origin, stop) is { } settled
            ? read / settled : SizeGuess.Candidates(drawing, (card.OpenWidth, card.OpenHeight), (card.FoldedWidth, card.FoldedHeight))[0].Scale;
    }

    /// <summary>Takes a file that says no size at another; what came of it is scaled with it. The next file from the same hand comes in like this one.</summary>
    /// <exception cref="EditRefused">The project has no such file, or nobody takes a scale like that.</exception>
    public async Task<OnDesk> SettleSizeAsync(OnDesk on, int seenHead, Guid file, double scale, CancellationToken stop)
    {
        var card = (await FilesAsync(on, stop)).FirstOrDefault(f => f.Id == file) ?? throw new EditRefused(Reason.FileGone);
        var edit = new ScaleArt(file, card.FileName, ScaleOf(on, file, card.Scale), scale);
        return await desk.DoAsync(on, seenHead, edit, stop, _ =>
            card.UnitsToInch is { } read ? art.SettleUnitsAsync(ProjectDesk.Owner, file, read / scale, stop) : Task.CompletedTask);
    }

    /// <summary>What a file's lengths are multiplied by now.</summary>
    public static double ScaleOf(OnDesk on, Guid file, double atFirst) => on.Value.SetOut.ArtScales.GetValueOrDefault(file, atFirst);

    /// <summary>Brings in a file that was kept until its size was known.</summary>
    /// <param name="on">The project.</param>
    /// <param name="seenHead">The revision that the user saw.</param>
    /// <param name="file">The file.</param>
    /// <param name="scale">What its lengths are multiplied by.</param>
    /// <param name="stop">Cancels.</param>
    /// <exception cref="EditRefused">The project has no such file, or nobody takes a scale like that.</exception>
    public async Task<BroughtIn> BringInAsync(OnDesk on, int seenHead, Guid file, double scale, CancellationToken stop)
    {
        if (!(scale is > 1e-5 and < 1e5)) throw EditRefused.Range(Measure.ArtScale, 1e-5, 1e5, "scale");
        var (name, origin, _) = await FoundAsync(on, file, stop);
        var content = await art.ContentAsync(ProjectDesk.Owner, file, stop);
        var drawing = (await reader.ReadAsync(content, BudgetLimits.Reading.Time, stop)).Scaled(scale);
        return await DoneAsync(on, seenHead, await AssembledAsync(on, file, name, content, drawing, scale, origin, stop), stop);
    }

    /// <summary>A file's name as it is kept: its end, without what does not show.</summary>
    internal static string Named(string fileName)
    {
        var shown = new string([.. fileName.Where(c => !char.IsControl(c))]).Trim();
        return shown.Length == 0 ? "art" : shown.Length > NameLimits.FileName ? shown[^NameLimits.FileName..] : shown;
    }

    private async Task<ReadArt> AssembledAsync(OnDesk on, Guid id, string name, byte[] content, Drawing drawing, double scale, string? origin, CancellationToken stop)
    {
        var remembered = await RulesForAsync(origin, stop);
        var design = Assemble(drawing, remembered, on, on.Value.Design.NextPiece, stop);
        var isSheet = ArtMotifs.Find(new Linkage(drawing), MotifCut.Usual).Length > SheetOfMotifs;
        return new(isSheet ? new KeepArt(id, name) : new BringInArt(id, name) { Pieces = design }, () => art.KeepAsync(
            ProjectDesk.Owner, id, on.Project.Id, name, content, drawing, scale, design.Pieces.Length, origin, Uses(design, remembered),
            isSheet ? drawing.Notes : WithPieces(drawing, design), stop), isSheet, []);
    }

    /// <summary>One page of a file's contact sheet.</summary>
    /// <param name="on">The project.</param>
    /// <param name="file">The file.</param>
    /// <param name="cut">How the sheet is parted into motifs.</param>
    /// <param name="first">Number of the first motif of the page.</param>
    /// <param name="most">Motifs on a page.</param>
    /// <param name="stop">Cancels.</param>
    /// <exception cref="EditRefused">The project has no such file.</exception>
    public async Task<ContactSheet> MotifsAsync(OnDesk on, Guid file, MotifCut cut, int first, int most, CancellationToken stop)
    {
        var (links, rules) = await LinkageAsync(on, file, stop);
        var motifs = ArtMotifs.Find(links, cut);
        var from = Math.Clamp(first, 1, Math.Max(1, motifs.Length));
        return new ContactSheet([.. motifs.Skip(from - 1).Take(most).Select(m => Assembled(m, links, rules, on, stop))], motifs.Length, from, cut);
    }

    private async Task<(Linkage Links, ImmutableArray<LookRule> Rules)> LinkageAsync(OnDesk on, Guid file, CancellationToken stop)
    {
        var (_, origin, scale) = await FoundAsync(on, file, stop);
        var links = await motifs.GetAsync(file, scale, async () => new Linkage(await ReadAsync(on, file, stop)));
        return (links, await RulesForAsync(origin, stop));
    }

    /// <summary>A motif as pieces and lines, where it lies on its page.</summary>
    private static Motif Assembled(ArtMotif motif, Linkage links, ImmutableArray<LookRule> rules, OnDesk on, CancellationToken stop)
    {
        var design = Assemble(motif.In(links.Drawing), rules, on, 1, stop);
        return new Motif(motif.Number, design.Pieces, design.Loose, motif.Box);
    }

    /// <summary>Takes motifs of a file into the project.</summary>
    /// <param name="on">The project.</param>
    /// <param name="seenHead">The revision that the user saw.</param>
    /// <param name="file">The file.</param>
    /// <param name="numbers">The motifs; null for everything, as it lies on its page.</param>
    /// <param name="cut">How the sheet was parted into motifs.</param>
    /// <param name="onto">Id of the piece whose lines they become; null for pieces of their own.</param>
    /// <param name="operation">What is done along them on that piece; null as they were understood.</param>
    /// <param name="stop">Cancels.</param>
    /// <exception cref="EditRefused">The project has no such file or piece, or no motif was named.</exception>
    public async Task<OnDesk> TakeAsync(
        OnDesk on, int seenHead, Guid file, IReadOnlyCollection<int>? numbers, MotifCut cut, string? onto, Operation? operation, CancellationToken stop)
    {
        var (fileName, origin, _) = await FoundAsync(on, file, stop);
        if (numbers is null)
        {
            var drawing = await ReadAsync(on, file, stop);
            var whole = Assemble(drawing, await RulesForAsync(origin, stop), on, on.Value.Design.NextPiece, stop);
            return await desk.DoAsync(on, seenHead, new BringInArt(file, fileName) { Pieces = whole }, stop);
        }
        var (links, rules) = await LinkageAsync(on, file, stop);
        var all = ArtMotifs.Find(links, cut);
        var wanted = Wanted(all.Length, numbers);
        ImmutableArray<Motif> motifs = [.. wanted.Select(n => Assembled(all[n - 1], links, rules, on, stop))];
        Edit edit = onto is null
            ? new BringInArt(file, fileName, wanted) { Pieces = Taken(on, motifs, wanted) }
            : new BringInLines(file, fileName, wanted.Length, onto) { Lines = MotifsOnPiece.Lines(on.Value.Design.Require(onto), motifs, operation) };
        return await desk.DoAsync(on, seenHead, edit, stop);
    }

    private async Task<(string FileName, string? Origin, double Scale)> FoundAsync(OnDesk on, Guid file, CancellationToken stop) =>
        await art.FindAsync(ProjectDesk.Owner, on.Project.Id, file, stop) is { } found ? found with { Scale = ScaleOf(on, file, found.Scale) } : throw new EditRefused(Reason.FileGone);

    private async Task<Drawing> ReadAsync(OnDesk on, Guid file, CancellationToken stop)
    {
        var (_, _, scale) = await FoundAsync(on, file, stop);
        return (await reader.ReadAsync(await art.ContentAsync(ProjectDesk.Owner, file, stop), BudgetLimits.Reading.Time, stop)).Scaled(scale);
    }

    private static Design Assemble(Drawing drawing, ImmutableArray<LookRule> rules, OnDesk on, int firstNumber, CancellationToken stop)
    {
        try
        {
            return Assembler.Assemble(drawing, rules, on.Drawer.StockFor, firstNumber, new Budget(BudgetLimits.Assembling, stop));
        }
        catch (BudgetSpent spent)
        {
            throw ReadRefused.ForBudget(spent);
        }
    }

    private static Design Taken(OnDesk on, ImmutableArray<Motif> all, ImmutableArray<int> wanted) =>
        Motifs.Take(all, wanted, on.Value.SetOut.Card.OpenWidth, on.Value.Design.NextPiece);

    /// <summary>The other projects of the workshop that have pieces, the last changed first.</summary>
    public async Task<List<ProjectCard>> OthersAsync(OnDesk on, CancellationToken stop) =>
        [.. (await projects.ListAsync(ProjectDesk.Owner, stop)).OnTheDesk.Where(p => p.Id != on.Project.Id && p.Pieces > 0)];

    /// <summary>What hangs together in another project, by number.</summary>
    /// <exception cref="EditRefused">There is no such project.</exception>
    public async Task<(string Name, ImmutableArray<Motif> Motifs)> MotifsOfAsync(Guid other, CancellationToken stop)
    {
        var project = await projects.OpenAsync(ProjectDesk.Owner, other, stop) ?? throw new EditRefused(Reason.ProjectGone);
        return (project.Name, Motifs.Find(project.Value.Design with { Loose = [] }));
    }

    /// <summary>Takes pieces of another project; nothing there changes.</summary>
    /// <exception cref="EditRefused">There is no such project, or nothing was named.</exception>
    public async Task<OnDesk> TakeFromAsync(OnDesk on, int seenHead, Guid other, IReadOnlyCollection<int> numbers, CancellationToken stop)
    {
        var (name, all) = await MotifsOfAsync(other, stop);
        var wanted = Wanted(all.Length, numbers);
        return await desk.DoAsync(on, seenHead, new BringInPieces(other, name, wanted) { Pieces = Taken(on, all, wanted) }, stop);
    }

    private static ImmutableArray<int> Wanted(int count, IEnumerable<int> numbers)
    {
        var wanted = numbers.Where(n => n >= 1 && n <= count).Distinct().Order().ToImmutableArray();
        return wanted.IsEmpty ? throw new EditRefused(Reason.NoMotifs) : wanted;
    }

    public Task<List<ArtCard>> FilesAsync(OnDesk on, CancellationToken stop) =>
        art.ListAsync(ProjectDesk.Owner, on.Project.Id, on.Project.Head, stop);

    public Task<List<string>> OriginsAsync(CancellationToken stop) => art.OriginsAsync(ProjectDesk.Owner, stop);

    private async Task<ImmutableArray<LookRule>> RulesForAsync(string? origin, CancellationToken stop) =>
        [.. (await rules.ListAsync(ProjectDesk.Owner, stop)).Where(r => r.IsFor(origin)).Select(r => r.Rule)];

    /// <summary>What each rule did, for those that did something.</summary>
    private static ImmutableArray<RuleUse> Uses(Design design, ImmutableArray<LookRule> rules) =>
    [
        .. design.Pieces.SelectMany(p => p.Lines).Concat(design.Loose)
            .Select(l => rules.FirstOrDefault(r => r.Fits(l.Look)) is { } rule && rule.Operation == l.Operation ? rule : null)
            .OfType<LookRule>().GroupBy(r => r).OrderByDescending(g => g.Count())
            .Select(g => new RuleUse(g.Key.InWords(), g.Count())),
    ];

    /// <summary>Notes about shapes that became lines of a piece, with that piece.</summary>
    private static ImmutableArray<ReadingNote> WithPieces(Drawing drawing, Design design)
    {
        if (drawing.Notes.IsEmpty) return [];
        var shapes = drawing.Shapes.GroupBy(s => s.Place).ToDictionary(g => g.Key, g => g.SelectMany(s => s.Paths).Select(p => p.Bounds).ToList());
        var lines = design.Pieces.SelectMany(p => p.Lines.Select(l => (p.Id, Box: l.Path.BoundsUnder(p.Place)))).ToList();
        return [.. drawing.Notes.Select(n => shapes.TryGetValue(n.Where, out var boxes)
            ? n with { Piece = lines.Find(l => boxes.Exists(b => b.Contains(l.Box, 0.01) && l.Box.Contains(b, 0.01))).Id }
            : n)];
    }
}
