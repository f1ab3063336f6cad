using Falzkunst.Core.Budgets;

namespace Falzkunst.Formats.Svg;

/// <summary>A declaration as it stands in a file.</summary>
/// <param name="Name">The property, lower case.</param>
/// <param name="Value">Its value without "!important", comments taken out.</param>
/// <param name="Important">It was marked so.</param>
internal readonly record struct CssDeclaration(string Name, string Value, bool Important);

/// <summary>A style rule: its selectors as text, and what it declares.</summary>
internal sealed record CssRule(string Selectors, List<CssDeclaration> Declarations);

/// <summary>
/// Reads style sheets and style attributes by the grammar of CSS Syntax Level 3 as far as SVG needs it: qualified rules with
/// declarations; at-rules and blocks within blocks are passed over. One pass with a counter in the place of a stack, so that
/// no nesting and no length does harm; see docs/decisions/style-sheets-are-read-here.md.
/// </summary>
internal sealed class CssReader(string text, Budget budget)
{
    private int _position;

    /// <summary>The rules in order.</summary>
    /// <param name="passedOver">Told the name of each at-rule, and "nested" for a block in a rule.</param>
    public IEnumerable<CssRule> Rules(Action<string> passedOver)
    {
        while (true)
        {
            SkipBlanks();
            if (_position >= text.Length) yield break;
            if (text[_position] is '}' or ';')
            {
                _position++;
                continue;
            }
            var prelude = Take("{;", endsAtBrace: false);
            var hasBlock = _position < text.Length && text[_position] == '{';
            _position++;
            if (prelude.StartsWith('@'))
            {
                if (hasBlock) SkipBlock();
                passedOver(AtName(prelude));
            }
            else if (hasBlock)
            {
                yield return new CssRule(prelude.Trim(), [.. Declarations(passedOver)]);
            }
        }
    }

    /// <summary>Declarations up to the end of the block or of the text.</summary>
    public IEnumerable<CssDeclaration> Declarations(Action<string>? passedOver = null)
    {
        while (true)
        {
            SkipBlanks();
            if (_position >= text.Length) yield break;
            if (text[_position] == '}')
            {
                _position++;
                yield break;
            }
            var one = Take(";{", endsAtBrace: true);
            if (_position < text.Length && text[_position] == '{')
            {
                _position++;
                SkipBlock();
                passedOver?.Invoke("nested");
                continue;
            }
            if (_position < text.Length && text[_position] == ';') _position++;
            if (Read(one) is { } declaration) yield return declaration;
        }
    }

    private static CssDeclaration? Read(string one)
    {
        var colon = one.IndexOf(':', StringComparison.Ordinal);
        if (colon <= 0) return null;
        // Custom properties and what refers to them are no part of what drawing programs write.
        var name = one[..colon].Trim().ToLowerInvariant();
        var value = one.AsSpan(colon + 1).Trim();
        if (name.StartsWith("--", StringComparison.Ordinal) || value.Contains("var(", StringComparison.OrdinalIgnoreCase)) return null;
        var mark = value.LastIndexOf('!');
        var isImportant = mark >= 0 && value[(mark + 1)..].Trim().Equals("important", StringComparison.OrdinalIgnoreCase);
        return new CssDeclaration(name, (isImportant ? value[..mark].TrimEnd() : value).ToString(), isImportant);
    }

    private static string AtName(string prelude)
    {
        var end = 1;
        while (end < prelude.Length && end < 40 && (char.IsLetterOrDigit(prelude[end]) || prelude[end] == '-')) end++;
        return prelude[..end];
    }

    /// <summary>The text up to one of the stops outside brackets and strings; comments are left out.</summary>
    private string Take(string stops, bool endsAtBrace)
    {
        var taken = new System.Text.StringBuilder();
        var depth = 0;
        while (_position < text.Length)
        {
            budget.Work();
            var c = text[_position];
            if (SkipComment()) continue;
            if (depth == 0 && (stops.Contains(c, StringComparison.Ordinal) || (endsAtBrace && c == '}'))) break;
            if (c is '"' or '\'')
            {
                var from = _position;
                SkipString(c);
                taken.Append(text, from, _position - from);
                continue;
            }
            if (c is '(' or '[') depth++;
            else if (c is ')' or ']' && depth > 0) depth--;
            else if (c == '\\' && _position + 1 < text.Length) taken.Append(text[_position++]);
            taken.Append(text[_position++]);
        }
        return taken.ToString();
    }

    /// <summary>Passes over what stands in braces, the first of which was read.</summary>
    private void SkipBlock()
    {
        for (var depth = 1; _position < text.Length && depth > 0;)
        {
            budget.Work();
            var c = text[_position];
            if (SkipComment()) continue;
            if (c is '"' or '\'')
            {
                SkipString(c);
                continue;
            }
            if (c == '{') depth++;
            if (c == '}') depth--;
            _position += c == '\\' ? 2 : 1;
        }
    }

    private void SkipString(char quote)
    {
        for (_position++; _position < text.Length && text[_position] != quote && text[_position] != '\n'; _position++)
        {
            if (text[_position] == '\\') _position++;
        }
        _position = Math.Min(_position + 1, text.Length);
    }

    private void SkipBlanks()
    {
        while (_position < text.Length && (char.IsWhiteSpace(text[_position]) || SkipComment()))
        {
            if (_position < text.Length && char.IsWhiteSpace(text[_position])) _position++;
        }
    }

    private bool SkipComment()
    {
        if (_position + 1 >= text.Length) return false;
        var mark = text.AsSpan(_position, 2);
        if (mark is "/*")
        {
            var end = text.IndexOf("*/", _position + 2, StringComparison.Ordinal);
            _position = end < 0 ? text.Length : end + 2;
            return true;
        }
        // Marks that hide a style sheet from browsers of another century.
        if (text.AsSpan(_position).StartsWith("<!--"))
        {
            _position += 4;
            return true;
        }
        if (!text.AsSpan(_position).StartsWith("-->")) return false;
        _position += 3;
        return true;
    }
}
