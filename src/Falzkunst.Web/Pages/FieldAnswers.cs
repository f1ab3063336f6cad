using System.Text.Encodings.Web;
using System.Text.Json;
using Falzkunst.Core.Measures;
using Falzkunst.Web.Wording;
using Microsoft.AspNetCore.Mvc;

namespace Falzkunst.Web.Pages;

/// <summary>What pages answer about one field.</summary>
internal static class FieldAnswers
{
    /// <summary>Headers hold nothing but ASCII.</summary>
    public static readonly JsonSerializerOptions AsciiJson = new() { Encoder = JavaScriptEncoder.Default };

    /// <summary>Has the page say a word beside the field that it is about.</summary>
    public static void Refuse(HttpResponse response, string field, string word) =>
        response.Headers["HX-Trigger"] = JsonSerializer.Serialize(new Dictionary<string, object> { ["refused"] = new { field, word } }, AsciiJson);

    /// <summary>What a length as typed comes to, in the user's units; the sentence of what is wrong where it is none.</summary>
    public static JsonResult Understood(string? text, Units units) =>
        new(Length.Read(text, units, out var mm) is { } fault ? ReasonWords.For(fault, text) : $"= {Length.InField(mm, units)}");
}
