using Falzkunst.Core.Catalogue;
using Falzkunst.Data;
using Falzkunst.Data.Rows;
using Falzkunst.Data.Workshop;
using Falzkunst.Formats.Fonts;
using Falzkunst.Web.Demo;
using Falzkunst.Web.Desk;
using Falzkunst.Web.Reading;
using Microsoft.EntityFrameworkCore;

namespace Falzkunst.Web;

/// <summary>Brings a database up to date and fills an empty one: tables, catalogue, demo project. Run by ./start as the tables' owner.</summary>
public static class Prepare
{
    public static async Task<int> RunAsync()
    {
        var connection = Environment.GetEnvironmentVariable("ConnectionStrings__FalzkunstOwner");
        if (string.IsNullOrEmpty(connection))
        {
            await Console.Error.WriteLineAsync("No connection string for the owner of the tables was given. Start with ./start, which sets it.");
            return 2;
        }
        await DatabaseAsync(connection, CancellationToken.None);
        return 0;
    }

    /// <summary>Prepares the database behind a connection string of the tables' owner.</summary>
    public static async Task DatabaseAsync(string connection, CancellationToken stop)
    {
        var services = new ServiceCollection();
        services.AddSingleton(TimeProvider.System);
        services.AddFalzkunstData(connection);
        services.AddSingleton<FaceShelf>();
        services.AddSingleton<OwnFaces>();
        services.AddSingleton<IWordShaper, ShippedArtReader>();
        services.AddScoped<ProjectDesk>();
        services.AddScoped<ArtDesk>();
        services.AddSingleton<MotifCache>();
        services.AddSingleton<IDrawingReader, ShippedArtReader>();
        await using var provider = services.BuildServiceProvider();
        await using var scope = provider.CreateAsyncScope();
        var db = scope.ServiceProvider.GetRequiredService<FalzkunstDb>();
        await db.Database.MigrateAsync(stop);
        if (await db.Workshops.AnyAsync(w => w.IsPrepared, stop))
        {
            // One of former times has no tools yet.
            await scope.ServiceProvider.GetRequiredService<CatalogueStore>().SeedAsync(WorkshopRow.OnlyOne, SeedCatalogue.Drawer, stop);
            return;
        }
        // Each step looks whether it is done: a start that was killed half way is taken up where it was.
        if (!await db.Workshops.AnyAsync(stop))
        {
            db.Workshops.Add(new WorkshopRow { Id = WorkshopRow.OnlyOne, Name = "Workshop" });
            await db.SaveChangesAsync(stop);
        }
        await scope.ServiceProvider.GetRequiredService<CatalogueStore>().SeedAsync(WorkshopRow.OnlyOne, SeedCatalogue.Drawer, stop);
        await DemoProject.LoadAsync(scope.ServiceProvider, stop);
        await db.Workshops.ExecuteUpdateAsync(u => u.SetProperty(w => w.IsPrepared, true), stop);
    }
}
