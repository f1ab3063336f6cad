namespace Falzkunst.Formats.Svg;

/// <summary>
/// A CSS selector of the kinds that drawing programs write: type, class, id, attribute, and the descendant and child
/// combinators. Matched right to left.
/// </summary>
internal sealed class SvgSelector
{
    private readonly List<(char Combinator, Compound Compound)> _parts = [];

    /// <summary>CSS specificity as one number.</summary>
    public int Specificity { get; private set; }

    /// <summary>Reads one selector (no commas); null for kinds that are not understood.</summary>
    public static SvgSelector? Read(string text)
    {
        var selector = new SvgSelector();
        var combinator = ' ';
        foreach (var token in text.Replace(">", " > ", StringComparison.Ordinal).Split(' ', StringSplitOptions.RemoveEmptyEntries))
        {
            if (token == ">")
            {
                combinator = '>';
                continue;
            }
            if (Compound.Read(token) is not { } compound) return null;
            selector._parts.Add((combinator, compound));
            selector.Specificity += compound.Specificity;
            combinator = ' ';
        }
        return selector._parts.Count > 0 ? selector : null;
    }

    public bool Matches(SvgNode node) => Matches(node, _parts.Count - 1);

    private bool Matches(SvgNode node, int part)
    {
        if (!_parts[part].Compound.Matches(node)) return false;
        if (part == 0) return true;
        for (var up = node.Parent; up is not null; up = up.Parent)
        {
            if (Matches(up, part - 1)) return true;
            if (_parts[part].Combinator == '>') return false;
        }
        return false;
    }

    private sealed class Compound
    {
        private string? _type;
        private string? _id;
        private readonly List<string> _classes = [];
        private readonly List<(string Name, string? Value)> _attributes = [];

        public int Specificity => (_id is null ? 0 : 10000) + (_classes.Count + _attributes.Count) * 100 + (_type is null ? 0 : 1);

        public static Compound? Read(string text)
        {
            var compound = new Compound();
            var at = 0;
            while (at < text.Length)
            {
                var kind = text[at];
                if (kind == '*')
                {
                    at++;
                    continue;
                }
                if (kind == '[')
                {
                    var close = text.IndexOf(']', at);
                    if (close < 0) return null;
                    var inside = text[(at + 1)..close].Split('=', 2);
                    if (inside[0].Any(c => !IsNameChar(c))) return null;
                    compound._attributes.Add((inside[0], inside.Length == 2 ? inside[1].Trim('"', '\'') : null));
                    at = close + 1;
                    continue;
                }
                if (kind is '.' or '#') at++;
                var from = at;
                while (at < text.Length && IsNameChar(text[at])) at++;
                if (at == from) return null;
                var name = text[from..at];
                if (kind == '.') compound._classes.Add(name);
                else if (kind == '#') compound._id = name;
                else compound._type = name;
            }
            return compound;
        }

        private static bool IsNameChar(char c) => char.IsLetterOrDigit(c) || c is '-' or '_' or '\\';

        public bool Matches(SvgNode node)
        {
            if (_type is not null && !_type.Equals(node.Name, StringComparison.Ordinal)) return false;
            if (_id is not null && _id != node.Id) return false;
            if (_classes.Count > 0)
            {
                if (node["class"] is not { } has) return false;
                var classes = has.Split([' ', '\t', '\r', '\n'], StringSplitOptions.RemoveEmptyEntries);
                if (!_classes.All(classes.Contains)) return false;
            }
            return _attributes.All(a => node[a.Name] is { } value && (a.Value is null || a.Value == value));
        }
    }
}
