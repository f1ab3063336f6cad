namespace Falzkunst.Core.Nesting;

/// <summary>A job that cannot be worked on; the message says what is wrong and where.</summary>
public sealed class NestRefused(string message) : Exception(message);
