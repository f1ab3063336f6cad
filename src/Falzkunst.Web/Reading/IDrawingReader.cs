using Falzkunst.Core.Budgets;
using Falzkunst.Core.Designs;
using Falzkunst.Core.Texts;
using Falzkunst.Formats;
using Falzkunst.Formats.Fonts;
using Falzkunst.Formats.Pictures;
using Falzkunst.Formats.Wire;

namespace Falzkunst.Web.Reading;

/// <summary>Reads art files.</summary>
public interface IDrawingReader
{
    /// <summary>Reads an SVG or a DXF file.</summary>
    /// <param name="file">The file.</param>
    /// <param name="time">How long it may take.</param>
    /// <param name="stop">Whoever asked has left.</param>
    /// <exception cref="ReadRefused">The file is not read.</exception>
    Task<Drawing> ReadAsync(byte[] file, TimeSpan time, CancellationToken stop);
}

/// <summary>Looks whether a file is a face, and reads it to its last glyph.</summary>
public interface IFaceReader
{
    /// <exception cref="ReadRefused">It is none, or one that cannot be used.</exception>
    Task<FaceFacts> ReadFaceAsync(byte[] file, TimeSpan time, CancellationToken stop);
}

/// <summary>Shapes words by a face that came from outside.</summary>
public interface IWordShaper
{
    /// <param name="face">The file of the face.</param>
    /// <param name="words">The words, and forms of letters.</param>
    /// <param name="time">How long it may take.</param>
    /// <param name="stop">Whoever asked has left.</param>
    /// <exception cref="ReadRefused">The face cannot be read, or makes more of the words than any face does.</exception>
    Task<ShapedText> ShapeAsync(byte[] face, WordsToShape words, TimeSpan time, CancellationToken stop);
}

/// <summary>Reads pictures to their last dot.</summary>
public interface IPictureReader
{
    /// <exception cref="ReadRefused">It is none, or one that cannot be read.</exception>
    Task<ReadPicture> ReadPictureAsync(byte[] file, TimeSpan time, CancellationToken stop);
}

/// <summary>Reads in this process, for files that ship with the application.</summary>
public sealed class ShippedArtReader : IDrawingReader, IWordShaper, IPictureReader
{
    public Task<ShapedText> ShapeAsync(byte[] face, WordsToShape words, TimeSpan time, CancellationToken stop)
    {
        using var read = FaceFile.Read(face, new Budget(BudgetLimits.Reading with { Time = time }, stop));
        return Task.FromResult(read.Shape(words.Words, words.Forms));
    }

    public Task<ReadPicture> ReadPictureAsync(byte[] file, TimeSpan time, CancellationToken stop) =>
        Task.FromResult(PictureReader.Read(file, new Budget(BudgetLimits.Reading with { Time = time }, stop)));

    public Task<Drawing> ReadAsync(byte[] file, TimeSpan time, CancellationToken stop) =>
        Task.FromResult(ArtReader.Read(file, new Budget(BudgetLimits.Reading with { Time = time }, stop)));
}
