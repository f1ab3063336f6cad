using System.Text;
using Falzkunst.Core.Budgets;
using Falzkunst.Core.Texts;
using Falzkunst.Formats;
using Falzkunst.Formats.Fonts;
using Falzkunst.Formats.Pictures;
using Falzkunst.Formats.Wire;

namespace Falzkunst.Reader;

/// <summary>Answers requests until there are no more; a request that cannot be read ends it.</summary>
internal static class ReadingLoop
{
    /// <summary>Read once before the first request, so that nobody waits until the code for it is made.</summary>
    private const string WarmUp =
        """
        <svg xmlns="http://www.w3.org/2000/svg" width="10mm" height="10mm" viewBox="0 0 10 10"><style>.a{fill:#123;stroke:red}</style>
        <clipPath id="c"><circle cx="5" cy="5" r="3"/></clipPath><linearGradient id="g"><stop offset="0" stop-color="red"/></linearGradient>
        <g id="layer" transform="translate(1 1)"><path class="a" clip-path="url(#c)" d="M0 0C1 2 3 4 5 5A2 2 0 0 1 6 6Q1 2 3 4z"/><rect rx="1" width="4" height="3" style="fill:url(#g)"/></g></svg>
        """;

    public static void Run(Stream requests, Stream answers)
    {
        ReadingWire.WriteDrawing(Stream.Null, ArtReader.Read(Encoding.UTF8.GetBytes(WarmUp)));
        using var answer = new BufferedStream(answers, 1 << 16);
        while (ReadingWire.ReadRequest(requests) is { } request)
        {
            try
            {
                var budget = new Budget(BudgetLimits.Reading with { Time = request.Time });
                if (request.Kind == ReadingKind.Face) ReadingWire.WriteFace(answer, FaceFile.Facts(request.File, budget));
                else if (request.Kind == ReadingKind.Words) ReadingWire.WriteShaped(answer, Shaped(request, budget));
                else if (request.Kind == ReadingKind.Picture) ReadingWire.WritePicture(answer, PictureReader.Read(request.File, budget));
                else ReadingWire.WriteDrawing(answer, ArtReader.Read(request.File, budget));
            }
            catch (ReadRefused refused)
            {
                ReadingWire.WriteRefusal(answer, refused);
            }
            answer.Flush();
        }
    }

    private static ShapedText Shaped(ReadingRequest request, Budget budget)
    {
        var asked = request.Words ?? throw new InvalidDataException("No words to be shaped.");
        using var face = FaceFile.Read(request.File, budget);
        return face.Shape(asked.Words, asked.Forms);
    }
}
