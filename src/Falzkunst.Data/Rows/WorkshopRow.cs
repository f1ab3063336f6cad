namespace Falzkunst.Data.Rows;

/// <summary>Whose things they are. Until there are accounts there is one workshop on this machine.</summary>
public sealed class WorkshopRow
{
    /// <summary>The workshop of a server without accounts.</summary>
    public static readonly Guid OnlyOne = new("5f0e1d0a-7a70-4b6e-9a55-0b5a3c1f0001");

    public Guid Id { get; set; }
    public required string Name { get; set; }

    /// <summary>It has its first drawer and its demo project; a start that was cut off is taken up by the next.</summary>
    public bool IsPrepared { get; set; }

    /// <summary>Rises with every change of the stock drawer, so that each process knows whether what it read still holds.</summary>
    public int DrawerVersion { get; set; }
}
