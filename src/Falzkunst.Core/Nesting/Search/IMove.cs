namespace Falzkunst.Core.Nesting.Search;

/// <summary>One way to look for a better arrangement than the best; it begins from that one and takes what it finds.</summary>
internal interface IMove
{
    /// <summary>Tries once, if it is its turn.</summary>
    /// <param name="isOver">Asked often; ends the work at once.</param>
    /// <returns>It was its turn; otherwise the next move is asked, and the arrangement is as it was.</returns>
    bool Try(Func<bool> isOver);
}
