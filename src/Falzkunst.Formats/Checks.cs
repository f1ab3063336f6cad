namespace Falzkunst.Formats;

internal static class Checks
{
    /// <exception cref="ReadRefused">The time for reading is used up.</exception>
    public static void Time(CancellationToken time)
    {
        if (time.IsCancellationRequested)
            throw new ReadRefused("too-slow", "Reading the file took too long and was stopped. Split the drawing into parts.");
    }
}
