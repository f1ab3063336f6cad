using Microsoft.EntityFrameworkCore;
using Microsoft.EntityFrameworkCore.Design;

namespace Falzkunst.Data;

/// <summary>How the migration tool makes a context; it connects to nothing.</summary>
internal sealed class FalzkunstDbForTools : IDesignTimeDbContextFactory<FalzkunstDb>
{
    public FalzkunstDb CreateDbContext(string[] args) => new(DatabaseSetup.Options("Host=127.0.0.1;Database=none"));
}
