using System.Globalization;
using Falzkunst.Reader;

// Reads art files for the server, one after the other, in a process of its own: what breaks it costs one file.
CultureInfo.DefaultThreadCurrentCulture = CultureInfo.InvariantCulture;
CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;

const int stackBytes = 16 * 1024 * 1024;
var reading = new Thread(() => ReadingLoop.Run(Console.OpenStandardInput(), Console.OpenStandardOutput()), stackBytes);
reading.Start();
reading.Join();
