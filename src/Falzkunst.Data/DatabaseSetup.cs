using Falzkunst.Data.Jobs;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Runs;
using Falzkunst.Data.Workshop;
using Microsoft.EntityFrameworkCore;
using Microsoft.Extensions.DependencyInjection;

namespace Falzkunst.Data;

/// <summary>How the database and the stores are reached.</summary>
public static class DatabaseSetup
{
    /// <summary>Context and stores for one connection string.</summary>
    public static IServiceCollection AddFalzkunstData(this IServiceCollection services, string connection)
    {
        services.AddDbContext<FalzkunstDb>(o => Configure(o, connection));
        services.AddSingleton<PartCache>();
        services.AddSingleton<DrawerCache>();
        services.AddScoped<PartStore>();
        services.AddScoped<ProjectStore>();
        services.AddScoped<ArtStore>();
        services.AddScoped<PictureStore>();
        services.AddScoped<CatalogueStore>();
        services.AddScoped<FaceStore>();
        services.AddScoped<DrawerStore>();
        services.AddScoped<LookRuleStore>();
        services.AddScoped<RunStore>();
        services.AddScoped<JobStore>();
        services.AddScoped<KnownResults>();
        return services;
    }

    /// <summary>Options for a context made by hand.</summary>
    public static DbContextOptions<FalzkunstDb> Options(string connection)
    {
        var options = new DbContextOptionsBuilder<FalzkunstDb>();
        Configure(options, connection);
        return options.Options;
    }

    private static void Configure(DbContextOptionsBuilder options, string connection) =>
        options.UseNpgsql(connection).UseSnakeCaseNamingConvention();
}
