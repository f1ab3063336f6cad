using Microsoft.EntityFrameworkCore;
using Npgsql;

namespace Falzkunst.Data;

/// <summary>What the database refuses.</summary>
internal static class Violations
{
    /// <summary>Somebody else wrote a row of that key in the same moment.</summary>
    public static bool IsTaken(this DbUpdateException e) => e.InnerException is PostgresException { SqlState: PostgresErrorCodes.UniqueViolation };
}
