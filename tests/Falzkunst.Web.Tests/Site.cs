using System.Net;
using System.Net.Http.Headers;
using System.Text.RegularExpressions;
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
        var demo = (await store.ListAsync(WorkshopRow.OnlyOne, default)).Last();
        return (await store.OpenAsync(WorkshopRow.OnlyOne, demo.Id, default))!;
    }

    public async Task<OpenProject> ProjectAsync(Guid id)
    {
        await using var scope = _factory!.Services.CreateAsyncScope();
        return (await scope.ServiceProvider.GetRequiredService<ProjectStore>().OpenAsync(WorkshopRow.OnlyOne, id, default))!;
    }

    /// <summary>A new empty project, begun as a user does.</summary>
    public async Task<Guid> BeginAsync(string name)
    {
        var answer = await PostAsync("/", new() { ["name"] = name }, head: null);
        Assert.Equal(HttpStatusCode.Redirect, answer.StatusCode);
        return Guid.Parse(answer.Headers.Location!.OriginalString.Split('/')[2]);
    }

    public Task<HttpResponseMessage> PostAsync(string path, Dictionary<string, string> fields, int? head, bool withToken = true, string? picked = null) =>
        SendAsync(path, new FormUrlEncodedContent(fields), head, withToken, picked);

    public Task<HttpResponseMessage> UploadAsync(string path, string name, byte[] content, int head)
    {
        var file = new ByteArrayContent(content);
        file.Headers.ContentType = new MediaTypeHeaderValue("image/svg+xml");
        return SendAsync(path, new MultipartFormDataContent { { file, "files", name } }, head, withToken: true);
    }

    public Task<HttpResponseMessage> SendAsync(string path, HttpContent content, int? head, bool withToken, string? picked = null)
    {
        var request = new HttpRequestMessage(HttpMethod.Post, path) { Content = content };
        if (withToken) request.Headers.Add("X-Falzkunst-Token", _token);
        if (head is not null) request.Headers.Add("X-Project-Head", head.ToString());
        if (picked is not null) request.Headers.Add("X-Selected", picked);
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
