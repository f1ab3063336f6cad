using System.Collections.Immutable;
using Falzkunst.Core.Designs;

namespace Falzkunst.Formats;

/// <summary>Notes up to a number; equal ones of one place once.</summary>
internal sealed class NoteList
{
    /// <summary>Notes kept; what comes after is only counted.</summary>
    private const int Most = 200;

    private readonly List<ReadingNote> _notes = [];
    private readonly HashSet<(string, string)> _seen = [];
    private int _more;

    public void Add(ReadingNote note)
    {
        if (!_seen.Add((note.Code, note.Where))) return;
        if (_notes.Count < Most) _notes.Add(note);
        else _more++;
    }

    public ImmutableArray<ReadingNote> ToImmutable() => _more == 0
        ? [.. _notes]
        : [.. _notes, new ReadingNote("more", $"{_more} more notes are not listed.", "whole file")];
}
