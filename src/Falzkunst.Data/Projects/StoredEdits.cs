namespace Falzkunst.Data.Projects;

/// <summary>Edits as SQL looks into them.</summary>
internal static class StoredEdits
{
    /// <summary>A table function over a row <c>r</c> with an edit: each of the edits that it is made of as <c>one</c>, itself where it is not several.</summary>
    public const string EachAsOne = "lateral jsonb_array_elements(case when r.edit->>'edit' = 'together' then r.edit->'edits' else jsonb_build_array(r.edit) end) as one";
}
