using System.Net;
using System.Net.Http.Headers;
using System.Text;
using System.Text.Json;
using System.Text.RegularExpressions;
using Falzkunst.Core.Editing;
using Falzkunst.Core.Projects;
using Falzkunst.Data.Projects;
using Falzkunst.Data.Rows;
using Microsoft.AspNetCore.Hosting;
using Microsoft.AspNetCore.Mvc.Testing;
using Microsoft.Extensions.DependencyInjection;

namespace Falzkunst.Web.Tests;

/// <summary>The application on a database of the tests' own, spoken to as a browser would.</summary>
public sealed partial class Site : IAsyncLifetime
{
    private readonly TestDatabase _database = new();

    /// <summary>Its tables.</summary>
    public TestDatabase Database => _database;

    private WebApplicationFactory<Program>? _factory;
    private string _token = "";

    public HttpClient Browser { get; private set; } = null!;

    public async ValueTask InitializeAsync()
    {
        await _database.InitializeAsync();
        await StartAsync();
    }

    /// <summary>Ends the server and starts another on the same database.</summary>
    public async Task RestartAsync()
    {
        Browser.Dispose();
        await _factory!.DisposeAsync();
        await StartAsync();
    }

    private async Task StartAsync()
    {
        _factory = new WebApplicationFactory<Program>().WithWebHostBuilder(b => b.UseSetting("ConnectionStrings:Falzkunst", _database.Connection));
        Browser = _factory.CreateClient(new WebApplicationFactoryClientOptions { AllowAutoRedirect = false });
        _token = Token().Match(await Browser.GetStringAsync("/")).Groups[1].Value;
    }

    public async Task<OpenProject> DemoAsync()
    {
        await using var scope = _factory!.Services.CreateAsyncScope();
        var store = scope.ServiceProvider.GetRequiredService<ProjectStore>();
        var demo = (await store.ListAsync(WorkshopRow.OnlyOne, default)).OnTheDesk.Last();
        return (await store.OpenAsync(WorkshopRow.OnlyOne, demo.Id, default))!;
    }

    public async Task<OpenProject> ProjectAsync(Guid id)
    {
        await using var scope = _factory!.Services.CreateAsyncScope();
        return (await scope.ServiceProvider.GetRequiredService<ProjectStore>().OpenAsync(WorkshopRow.OnlyOne, id, default))!;
    }

    /// <summary>Does something with the services of the application.</summary>
    public async Task<T> WithAsync<T>(Func<IServiceProvider, Task<T>> act)
    {
        await using var scope = _factory!.Services.CreateAsyncScope();
        return await act(scope.ServiceProvider);
    }

    /// <summary>The edit that made a revision.</summary>
    public async Task<Edit?> EditAsync(Guid id, int number)
    {
        await using var scope = _factory!.Services.CreateAsyncScope();
        return await scope.ServiceProvider.GetRequiredService<ProjectStore>().EditAsync(WorkshopRow.OnlyOne, id, number, default);
    }

    /// <summary>A project that holds what no page makes yet.</summary>
    public async Task<Guid> CreateAsync(string name, Project value)
    {
        await using var scope = _factory!.Services.CreateAsyncScope();
        return await scope.ServiceProvider.GetRequiredService<ProjectStore>().CreateAsync(WorkshopRow.OnlyOne, name, value, default);
    }

    /// <summary>A project with a file brought in, which makes it two revisions.</summary>
    public async Task<Guid> WithArtAsync(string name, string file, string art)
    {
        var id = await BeginAsync(name);
        var answer = await UploadAsync($"/projects/{id}/art?handler=BringIn", file, Encoding.UTF8.GetBytes(art), 1);
        Assert.Equal(HttpStatusCode.OK, answer.StatusCode);
        return id;
    }

    /// <summary>A new empty project, begun as a user does.</summary>
    public async Task<Guid> BeginAsync(string name)
    {
        var answer = await PostAsync("/", new() { ["name"] = name }, head: null);
        Assert.Equal(HttpStatusCode.Redirect, answer.StatusCode);
        return Guid.Parse(answer.Headers.Location!.OriginalString.Split('/')[2]);
    }

    public Task<HttpResponseMessage> PostAsync(string path, Dictionary<string, string> fields, int? head, bool withToken = true, string? picked = null) =>
        SendAsync(path, new FormUrlEncodedContent(picked is null ? fields : new Dictionary<string, string>(fields) { ["picked"] = picked }), head, withToken);

    /// <summary>An action of the bench, as a form or a hand gives it.</summary>
    public Task<HttpResponseMessage> DoAsync(Guid project, string action, Dictionary<string, string> fields, string picked, int head, string station = "pieces") =>
        PostAsync($"/projects/{project}/{station}?handler=Do&act={action}", fields, head, picked: picked);

    /// <summary>What was refused because of one field, as the page is told; null where nothing was.</summary>
    public static (string Field, string Word)? RefusedBy(HttpResponseMessage answer)
    {
        if (!answer.Headers.TryGetValues("HX-Trigger", out var triggers)) return null;
        return JsonDocument.Parse(string.Concat(triggers)).RootElement.TryGetProperty("refused", out var refused)
            ? (refused.GetProperty("field").GetString()!, refused.GetProperty("word").GetString()!) : null;
    }

    public Task<HttpResponseMessage> UploadAsync(string path, string name, byte[] content, int head)
    {
        var file = new ByteArrayContent(content);
        file.Headers.ContentType = new MediaTypeHeaderValue("image/svg+xml");
        return SendAsync(path, new MultipartFormDataContent { { file, "files", name } }, head, withToken: true);
    }

    public Task<HttpResponseMessage> SendAsync(string path, HttpContent content, int? head, bool withToken)
    {
        var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = content };
        if (withToken) request.Headers.Add("X-Falzkunst-Token", _token);
        if (head is not null) request.Headers.Add("X-Project-Head", head.ToString());
        return Browser.SendAsync(request);
    }

    public async ValueTask DisposeAsync()
    {
        Browser?.Dispose();
        if (_factory is not null) await _factory.DisposeAsync();
        await _database.DisposeAsync();
    }

    [GeneratedRegex("name=\"falzkunst-token\" content=\"([^\"]*)\"")]
    private static partial Regex Token();
}
