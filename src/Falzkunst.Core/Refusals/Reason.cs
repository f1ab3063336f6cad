namespace Falzkunst.Core.Refusals;

/// <summary>Why an edit cannot be done. What stands behind each is what its values are, in their order.</summary>
public enum Reason
{
    /// <summary>A number is not between two limits: what it measures (<see cref="Measure"/>), least, most.</summary>
    OutOfRange,

    // What is spoken of is not there, or not there any more.
    PieceGone,
    LinesGone,
    LookGone,
    NodeGone,
    SegmentGone,
    SheetGone,
    CopyGone,
    VariantGone,
    SmallThingGone,
    ProjectGone,
    RevisionGone,
    FileGone,

    /// <summary>Key of the stock.</summary>
    NoSuchStock,

    /// <summary>Key of the machine.</summary>
    NoSuchMachine,

    // What is picked does not fit what shall be done.
    NothingPicked,
    OnePieceOnly,
    LinesOnly,
    OneLineOnly,
    AlignTwo,
    AlignLinesOnly,
    CentreLinesOnly,
    SpreadThree,
    MergeTwo,
    IslandsOnly,

    /// <summary>Name of the piece.</summary>
    Locked,

    /// <summary>The line follows the edge of its piece; it must be made plain first.</summary>
    FollowsEdge,
    NotTooShort,
    BaseThere,
    NoBase,

    /// <summary>The item follows from nothing, so that it is plain already.</summary>
    PlainAlready,

    // Outlines are more than lines.
    OutlineNotRemoved,
    OutlineNotGiven,
    OutlineNotCopied,
    OutlineIsEdge,

    // Geometry.

    /// <summary>Name of the piece, where it is one; its cuts are longer, finer or cross more than can be worked with.</summary>
    TooIntricate,
    ClosedLinesOnly,

    /// <summary>Name of the piece.</summary>
    NoOpenings,
    NotHeld,
    PictureGone,
    NoPictureOn,
    PictureLies,
    PicturesFull,
    PictureStepsFull,
    PictureCropped,
    PictureDots,
    PictureCorners,
    PictureBrush,
    NothingTraced,
    TracedTooMany,

    /// <summary>Names of the part and of the piece that should hold it.</summary>
    NotInside,
    OnThatPieceAlready,
    NotAnEdge,
    NoExtent,
    NoAreaLeft,
    ClosedAlready,
    TooFarOff,
    NodeNeeded,
    FillTooFine,
    NoWidth,

    /// <summary>The inset is so deep that no line is left: name of the piece.</summary>
    NoEdgeLine,

    // Words and colours.
    NoWords,
    OneTextOnly,

    /// <summary>Key of the face.</summary>
    NoSuchFace,
    FaceShapesNothing,

    /// <summary>Segments of the letters, and the most that they may have.</summary>
    LettersTooFine,
    NotAColour,
    NoInk,
    WordsAreAPiece,
    SingleLineFace,
    NoWordPiece,

    /// <summary>Number of the row, how many values it has, how many fields there are.</summary>
    RowTooLong,
    FilledTooLong,
    NoListHere,

    // Building.
    FollowsNothing,
    CombineTwo,

    /// <summary>Names of the two pieces.</summary>
    NothingInCommon,

    /// <summary>Name of the line, width of its gap.</summary>
    LineOpen,

    /// <summary>Name of the piece.</summary>
    PartsNothing,

    /// <summary>How far ends may lie apart.</summary>
    NoEndsNear,

    // Variants.
    /// <summary>How many may be kept.</summary>
    VariantsFull,
    NothingToKeep,

    // Fine detail.
    /// <summary>Name of the piece, or nothing where there are several.</summary>
    StrongAlready,

    /// <summary>Name of the piece, into how many parts.</summary>
    CutIntoParts,

    /// <summary>Name of the piece, or nothing where there are several.</summary>
    NothingSmall,

    /// <summary>Name of the piece.</summary>
    NothingLeft,

    /// <summary>Width, name of the island.</summary>
    NoRoomForBridge,

    /// <summary>Names of the island and of the piece around it.</summary>
    BridgeTooShort,

    /// <summary>Name of the piece.</summary>
    NotAnIsland,

    // Sheets.
    NoPieces,

    /// <summary>How many, how many at most.</summary>
    TooManyCopies,

    /// <summary>What the nester refused, as a <see cref="Nesting.NestReason"/>.</summary>
    CannotNest,
    SheetsStale,

    /// <summary>Number of the sheet.</summary>
    SheetCut,

    /// <summary>Number of the sheet, name of its rest.</summary>
    RestKept,
    NothingWorthKeeping,
    OtherStock,
    NoCopies,
    SameSheet,
    BeyondSheets,

    /// <summary>Name of the size, name of the stock.</summary>
    NoFurtherSheet,

    /// <summary>Number of the sheet (0: a new one), how many copies, name of the piece where there is one.</summary>
    NoRoomOnSheet,

    // Where copies may not lie: name of the piece first.
    /// <summary>Name, how far.</summary>
    OverBorder,

    /// <summary>Name, distance to the edge of the offcut, distance kept.</summary>
    NearOffcutEdge,
    OffOffcut,

    /// <summary>Name, distance, name of the other, distance kept.</summary>
    TooNear,

    /// <summary>Name.</summary>
    AgainstDirection,

    /// <summary>Name, name of the other.</summary>
    LiesOnOther,
    NothingSettled,
    SettledStale,
    SettledPins,
    SettledSheets,

    // History.
    NothingToUndo,
    NothingToRedo,

    // Art.
    ArtNotRead,
    NothingInArt,
    NoMotifs,

    // What was typed as a command.
    CommandEmpty,

    /// <summary>Characters at most.</summary>
    CommandTooLong,

    /// <summary>The word, commands that begin alike.</summary>
    NoSuchCommand,

    /// <summary>What is lacking, how the command is written.</summary>
    CommandLacks,

    /// <summary>The word, how the command is written.</summary>
    CommandTooMuch,

    /// <summary>How the command is written.</summary>
    QuoteOpen,

    /// <summary>The word, how the command is written (may be lacking).</summary>
    NotANumber,

    /// <summary>The word, how the command is written (may be lacking).</summary>
    NotAWholeNumber,

    /// <summary>The text.</summary>
    NotALength,

    /// <summary>The word, what it may be, how the command is written.</summary>
    NotOneOf,

    /// <summary>What was sought ("stock", "piece", "variant"), its name, names that fit.</summary>
    NameFitsSeveral,

    /// <summary>What was sought, its name, names that there are.</summary>
    NoSuchName,

    // The drawer.

    /// <summary>The name.</summary>
    NameTaken,
    NameLacks,

    NoSheetSizes,

    /// <summary>How many at most.</summary>
    TooManyInDrawer,
    OffcutCrosses,
    OffcutTooSmall,
    NoHolders,
    NoCalibration,
    HolderTakesNothing,
    NoFiles,
    NoSuchTool,
    WidthLacks,

    // Printing.

    /// <summary>Name of the machine.</summary>
    ReadsNoMarks,
    NoMarksThere,
    MarksAreClose,

    /// <summary>Width of the strip that is not printed.</summary>
    MarksInMargin,

    /// <summary>Name of the piece.</summary>
    NothingHangsOver,

    /// <summary>Name of the lowest piece.</summary>
    NotTogether,
    NothingPrinted,

    /// <summary>Name of the piece, paper kept clear round a mark.</summary>
    InMarkZone,
}

/// <summary>What a number that is out of range measures.</summary>
public enum Measure
{
    PieceSize,
    ShapeSize,
    MoveDistance,
    TurnDegrees,
    CardSize,
    Cards,
    Quantity,
    Spacing,
    ScoreClearance,
    NarrowestPart,
    TipWidth,
    Dash,
    DashGap,
    StrokeDistance,
    StrokeDegrees,
    ForceGrams,
    Speed,
    BladeOut,
    Celsius,
    TimesOver,
    Places,
    AroundCount,
    Copies,
    Borders,
    BorderDistance,
    RingWidth,
    BridgeWidth,
    BridgeCount,
    Thickening,
    ArtScale,
    KeptGap,
    SmallSize,
    EdgeInset,
    ArcDegrees,
    CapitalHeight,
    TieSize,
    EndGap,
    ListRows,
    RowCopies,
    ValueLength,
    FieldCount,
    Characters,
    LetterSpacing,
    LineSpacing,
    TextWidth,
    Layer,
    NameLength,
    Corners,
    CornerRadius,
    StarDepth,
    Grams,
    Thickness,
    SheetSide,
    SheetCount,
    WarmUp,
    MatSide,
    BorderStrip,
    TopSpeed,
    Acceleration,
    LiftSeconds,
    UnitsPerMm,
    OffcutSide,
    ColourTolerance,
    PictureSize,
    TraceSmooth,
    TraceCorner,
    TraceColours,
    TraceThreshold,
    PrintedWidth,
    PrinterMargin,
    BleedWidth,
    GlueMargin,
    SidesApart,
    CutApart,
    MarkInset,
    MarkArm,
    MarkLine,
    MarkClear,
}

/// <summary>A length among the values of a refusal or finding, shown in the user's units.</summary>
public readonly record struct Mm(double Value)
{
    public override string ToString() => FormattableString.Invariant($"{Value} mm");
}
