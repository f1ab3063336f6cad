namespace Falzkunst.Core.Nesting.Search;

/// <summary>A valid arrangement and how good it is.</summary>
internal sealed record Incumbent(Pose[] Poses, NestScore Score);
