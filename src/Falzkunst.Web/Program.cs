using System.Globalization;
using Falzkunst.Data;
using Falzkunst.Formats.Fonts;
using Falzkunst.Web;
using Falzkunst.Web.Binding;
using Falzkunst.Web.Desk;
using Falzkunst.Web.Jobs;
using Falzkunst.Web.Pictures;
using Falzkunst.Web.Practice;
using Falzkunst.Web.Reading;
using Falzkunst.Web.Security;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.HostFiltering;
using Microsoft.AspNetCore.Http.Features;
using Serilog;

CultureInfo.DefaultThreadCurrentCulture = CultureInfo.InvariantCulture;
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;

if (args is ["prepare"]) return await Prepare.RunAsync();

var builder = WebApplication.CreateBuilder(args);
builder.Host.UseSerilog((context, log) => log.ReadFrom.Configuration(context.Configuration).WriteTo.Console(
    restrictedToMinimumLevel: Serilog.Events.LogEventLevel.Information,
    outputTemplate: "{Timestamp:HH:mm:ss} {Level:u3} {Message:lj}{NewLine}{Exception}",
    formatProvider: CultureInfo.InvariantCulture));

var connection = builder.Configuration.GetConnectionString("Falzkunst")
    ?? throw new InvalidOperationException("No connection string “Falzkunst” was given. Start with ./start, which sets it.");
builder.Services.AddSingleton(TimeProvider.System);
builder.Services.AddFalzkunstData(connection);
builder.Services.AddDataProtection().SetApplicationName("Falzkunst").PersistKeysToDbContext<FalzkunstDb>();
builder.Services.AddScoped<ProjectDesk>();
builder.Services.AddScoped<PictureDesk>().AddSingleton<PictureCache>();
builder.Services.AddSingleton<IPictureReader>(s => s.GetRequiredService<GuardedReader>());
builder.Services.AddScoped<ArtDesk>().AddScoped<ZipDesk>();
builder.Services.AddScoped<DrawerDesk>();
builder.Services.AddScoped<FaceDesk>();
builder.Services.AddSingleton<MotifCache>();
builder.Services.AddSingleton<FaceShelf>();
builder.Services.AddSingleton<OwnFaces>();
builder.Services.AddSingleton<GuardedReader>();
builder.Services.AddSingleton<IDrawingReader>(s => s.GetRequiredService<GuardedReader>());
builder.Services.AddSingleton<IFaceReader>(s => s.GetRequiredService<GuardedReader>());
builder.Services.AddSingleton<IWordShaper>(s => s.GetRequiredService<GuardedReader>());
builder.Services.AddSingleton<PlanCache>();
builder.Services.AddSingleton<HandCache>();
builder.Services.AddSingleton<PageCache>();
builder.Services.AddSingleton<DetailCache>();
builder.Services.AddHostedService<PracticeDriver>();
builder.Services.AddSingleton<JobSignal>();
builder.Services.AddSingleton<JobInput>();
builder.Services.AddSingleton<IWork, SettleWork>();
builder.Services.AddSingleton<IWork, SendWork>();
builder.Services.AddSingleton<IWork, SurveyWork>();
builder.Services.AddSingleton<IWork, ThickenWork>();
builder.Services.AddSingleton<IWork, TraceWork>();
builder.Services.AddScoped<JobDesk>();
builder.Services.AddScoped<SurveyDesk>();
builder.Services.AddScoped<SheetsDesk>();
builder.Services.AddScoped<PrintDesk>();
builder.Services.AddScoped<FilesDesk>();
builder.Services.AddScoped<ScanDesk>();
builder.Services.AddHostedService<JobWorkers>();
// Whatever happens in the background, pages go on.
builder.Services.Configure<HostOptions>(o => o.BackgroundServiceExceptionBehavior = BackgroundServiceExceptionBehavior.Ignore);
builder.Services.AddAntiforgery(o =>
{
    o.HeaderName = "X-Falzkunst-Token";
    o.Cookie.Name = "falzkunst-token";
    o.Cookie.SameSite = SameSiteMode.Strict;
});
builder.Services.Configure<FormOptions>(o => o.MultipartBodyLengthLimit = ArtDesk.LargestUpload);
builder.WebHost.ConfigureKestrel(o =>
{
    o.AddServerHeader = false;
    o.Limits.MaxRequestBodySize = ArtDesk.LargestUpload;
});
// A page of another site that points its own name at this machine is no guest here. More names only by what starts the server.
builder.Services.PostConfigure<HostFilteringOptions>(o => o.AllowedHosts = ["localhost", "127.0.0.1", "[::1]", .. (builder.Configuration["Hosts"] ?? "").Split(';', StringSplitOptions.RemoveEmptyEntries)]);
builder.Services.AddRazorPages().AddMvcOptions(BindingSetup.Configure);
builder.Services.AddRouting(o => o.LowercaseUrls = true);

// What the reading process could otherwise look up: how the database is reached stands in the environment.
ReadingWalls.HideThisProcess();
var app = builder.Build();
app.UseExceptionHandler("/trouble");
app.UseStatusCodePagesWithReExecute("/trouble", "?code={0}");
app.UseMiddleware<SecurityHeaders>();
app.UseStaticFiles(new StaticFileOptions
{
    OnPrepareResponse = c => c.Context.Response.Headers.CacheControl = "no-cache",
});
app.UseRouting();
app.MapRazorPages();
app.MapGet("/faces/{face}", (string face, string words, OwnFaces faces, HttpResponse response) => FacePicture.Answer(face, words, faces.For(ProjectDesk.Owner, []), response));
app.Lifetime.ApplicationStarted.Register(() => app.Services.GetRequiredService<GuardedReader>().Warm());
app.Lifetime.ApplicationStarted.Register(() =>
{
    foreach (var lacking in ReadingProcess.Walls.Value.Lacking) Console.WriteLine($"The process that reads uploads is walled off less than it could be: {lacking}.");
});
app.Lifetime.ApplicationStarted.Register(() => Console.WriteLine($"Falzkunst is at {string.Join(" and ", app.Urls)}"));
await app.RunAsync();
return 0;

/// <summary>Named so that tests can start the application.</summary>
public partial class Program;
