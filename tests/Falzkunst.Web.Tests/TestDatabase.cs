using Falzkunst.Data;
using Falzkunst.Data.Projects;
using Falzkunst.Web;
using Microsoft.Extensions.DependencyInjection;
using Npgsql;

namespace Falzkunst.Web.Tests;

/// <summary>A database of the tests' own on the project's server, prepared as ./start does, dropped at the end.</summary>
public sealed class TestDatabase : IAsyncLifetime
{
    private readonly string _name = $"falzkunst_test_{Guid.NewGuid():N}";
    private string _server = "";

    public string Connection { get; private set; } = "";

    public ValueTask InitializeAsync() => InitializeAsync(null);

    /// <summary>A database that is first filled by a script, such as one that a former state left.</summary>
    public async ValueTask InitializeAsync(string? script)
    {
        _server = Environment.GetEnvironmentVariable("FALZKUNST_TEST_SERVER")
            ?? throw new InvalidOperationException("FALZKUNST_TEST_SERVER is not set. Run ./test, or: eval \"$(scripts/database env)\".");
        await ExecuteAsync($"create database {_name}");
        Connection = new NpgsqlConnectionStringBuilder(_server) { Database = _name }.ConnectionString;
        if (script is not null) await ExecuteAsync(script, Connection);
        await Prepare.DatabaseAsync(Connection, CancellationToken.None);
    }

    /// <summary>Services as after a restart: nothing is remembered but what the database holds.</summary>
    public ServiceProvider Restarted()
    {
        var services = new ServiceCollection();
        services.AddSingleton(TimeProvider.System);
        services.AddFalzkunstData(Connection);
        return services.BuildServiceProvider();
    }

    public async ValueTask DisposeAsync()
    {
        NpgsqlConnection.ClearAllPools();
        await ExecuteAsync($"drop database if exists {_name} with (force)");
    }

    /// <summary>Does to the tables what no page would.</summary>
    public Task BreakAsync(string sql) => ExecuteAsync(sql, Connection);

    /// <summary>The first column of what a query finds, as text.</summary>
    public async Task<List<string>> StoredAsync(string sql)
    {
        await using var connection = new NpgsqlConnection(Connection);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await using var reader = await command.ExecuteReaderAsync();
        var found = new List<string>();
        while (await reader.ReadAsync()) found.Add(reader.GetString(0));
        return found;
    }

    private async Task ExecuteAsync(string sql, string? on = null)
    {
        await using var connection = new NpgsqlConnection(on ?? _server);
        await connection.OpenAsync();
        await using var command = new NpgsqlCommand(sql, connection);
        await command.ExecuteNonQueryAsync();
    }
}
