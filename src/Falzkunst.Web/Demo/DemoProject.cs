using Falzkunst.Core.Actions;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Projects;
using Falzkunst.Web.Desk;

namespace Falzkunst.Web.Demo;

/// <summary>The project that a new workshop opens with: an invitation to the night of the Wendel Valley Tramway's depot.</summary>
public static class DemoProject
{
    public static async Task LoadAsync(IServiceProvider services, CancellationToken stop)
    {
        var projects = services.GetRequiredService<ProjectStore>();
        var desk = services.GetRequiredService<ProjectDesk>();
        var card = CardFormat.Common.First(c => c.Name == "5 × 7 inch") with { Fold = CardFold.Gate };
        var empty = Project.Empty with { SetOut = SetOut.Default with { Card = card } };
        var id = await projects.CreateAsync(ProjectDesk.Owner, "Night tram invitation", empty, stop, Key);
        var on = await desk.OpenAsync(id, stop) ?? throw new InvalidOperationException("The demo project was not written.");
        if (on.Value.Design.Pieces.IsEmpty)
        {
            var art = await ReadAsync(File, stop);
            on = (await services.GetRequiredService<ArtDesk>().BringInAsync(on, on.Project.Head, File, art, null, stop)).On;
        }
        foreach (var (name, quantity) in Quantities)
        {
            if (on.Value.Design.Pieces.FirstOrDefault(p => p.Name == name) is { } piece && piece.Quantity != quantity)
                on = await desk.DoAsync(on, on.Project.Head, new SetQuantity(piece.Id, quantity), stop);
        }
        if (on.Value.SetOut.Printing.IsEmpty && on.Value.Design.Pieces.FirstOrDefault(p => p.Name == Printed) is { } tag)
        {
            // One step after the other, as a hand would do it, so that the history shows how it is done.
            foreach (var action in PrintedTag)
            {
                var context = new BenchContext(on.Value, Picked.OfPieces(tag.Id), on.Drawer);
                on = await desk.DoAsync(on, on.Project.Head, action.For(context), stop);
            }
        }
        if (on.Value.Sheets is null) await desk.DoAsync(on, on.Project.Head, new PutOnSheets(on.Value.SetOut.SpacingMm, Guid.NewGuid()), stop);
    }

    private const string File = "night-tram.svg";

    /// <summary>The same in every workshop, so that a start which was cut off goes on with the project that it began.</summary>
    private static readonly Guid Key = new("0198f000-0000-7000-8000-0000000de301");

    private static readonly (string Name, int Quantity)[] Quantities = [("Ticket tag", 6), ("Star", 12)];

    private const string Printed = "Ticket tag";

    private static readonly BenchAction[] PrintedTag =
    [
        new PrintGroundAction("#E6D9B8"), new PrintBorderAction(2.2, 0.6, 1.6, 1.2, "#8A5A2B", Round: true),
        new PrintPagesAction("chalk-200-printed", Marks: true),
    ];

    private static async Task<byte[]> ReadAsync(string name, CancellationToken stop)
    {
        await using var stream = typeof(DemoProject).Assembly.GetManifestResourceStream(name)
            ?? throw new InvalidOperationException($"The demo art {name} is missing from the build.");
        using var bytes = new MemoryStream();
        await stream.CopyToAsync(bytes, stop);
        return bytes.ToArray();
    }
}
