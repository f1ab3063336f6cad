using Falzkunst.Core.Projects;

namespace Falzkunst.Data.Projects;

/// <summary>A project as it stands now.</summary>
/// <param name="Id">Its key.</param>
/// <param name="Name">Its name.</param>
/// <param name="Head">Number of the revision that it is.</param>
/// <param name="Value">The project itself.</param>
/// <param name="SavedAt">When that revision was written or gone back to.</param>
/// <param name="UndoSentence">What undo takes back; null at the beginning.</param>
/// <param name="RedoSentence">What redo does again; null where nothing was undone.</param>
public sealed record OpenProject(
    Guid Id, string Name, int Head, Project Value, DateTimeOffset SavedAt, string? UndoSentence, string? RedoSentence)
{
    /// <summary>Version of the owner's stock drawer when it was opened; null where that was not asked.</summary>
    public int? DrawerVersion { get; init; }

    /// <summary>
    /// What is about to be done was decided on looking at this revision. Asked before anything is made of <see cref="Value"/>:
    /// the lock sees the head alone, which may have gone elsewhere and come back between opening and writing.
    /// </summary>
    /// <exception cref="StaleEdit">It was decided on another one.</exception>
    public void DemandSeen(int seenHead)
    {
        if (seenHead != Head) throw new StaleEdit(UndoSentence ?? "the project was begun", Head);
    }
}

/// <summary>A revision in a project's history.</summary>
/// <param name="Number">Its number.</param>
/// <param name="Sentence">What was done.</param>
/// <param name="At">When.</param>
/// <param name="IsHead">The project is at it now.</param>
/// <param name="IsOnTheWay">It lies between the beginning and the head; others were undone, or lie on a branch that was left.</param>
public sealed record RevisionCard(int Number, string Sentence, DateTimeOffset At, bool IsHead, bool IsOnTheWay);

/// <summary>A line in the list of projects.</summary>
public sealed record ProjectCard(Guid Id, string Name, DateTimeOffset ChangedAt, int Pieces, int Stocks, int Findings, int Head);

/// <summary>An edit was made on a revision that is no longer the head.</summary>
public sealed class StaleEdit(string whatChanged, int head) : Exception($"The project has changed meanwhile: {whatChanged}")
{
    /// <summary>What was done last, as a sentence.</summary>
    public string WhatChanged { get; } = whatChanged;

    /// <summary>The head now.</summary>
    public int Head { get; } = head;
}
