namespace Falzkunst.Web.Wording;

/// <summary>Forms of letters in words.</summary>
public static class FormWords
{
    /// <summary>What a tag of OpenType stands for.</summary>
    public static string For(string tag) => tag switch
    {
        "swsh" => "swashes",
        "cswh" => "swashes by place",
        "salt" => "other forms",
        "titl" => "for titles",
        "hist" => "old forms",
        "dlig" => "fancy joins",
        "hlig" => "old joins",
        "smcp" => "small capitals",
        "onum" => "old figures",
        "fina" => "endings",
        "init" => "beginnings",
        _ => $"set {tag.TrimStart('s').TrimStart('0')}",
    };
}
