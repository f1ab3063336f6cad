namespace Falzkunst.Core.Nesting;

/// <summary>What of a job cannot be worked on.</summary>
public enum NestReason
{
    Spacing,
    SheetSize,
    SheetCount,
    SameSheetId,
    SamePieceId,
    Quantity,
    NoArea,
    PieceTooLarge,
    TooManyCopies,
    PinNotRigid,
    PinWithoutCopy,
    PinWithoutSheet,
}

/// <summary>A job that cannot be worked on: a code, and for engineers what is wrong and where.</summary>
public sealed class NestRefused(NestReason reason, string message) : Exception(message)
{
    public NestReason Reason { get; } = reason;
}
