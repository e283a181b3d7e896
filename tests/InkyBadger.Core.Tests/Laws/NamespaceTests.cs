using System.Reflection;
using System.Reflection.Emit;

namespace InkyBadger.Core.Tests.Laws;

/// <summary>The core's namespaces stand upon each other without a circle: what is compiled is walked, signatures and bodies.</summary>
public class NamespaceTests
{
    private const BindingFlags All =
        BindingFlags.Public | BindingFlags.NonPublic | BindingFlags.Static | BindingFlags.Instance | BindingFlags.DeclaredOnly;
    private static readonly Assembly Core = typeof(Evaluator).Assembly;

    private static readonly Dictionary<short, OpCode> OpCodesByValue = typeof(OpCodes)
        .GetFields()
        .Select(f => f.GetValue(null))
        .OfType<OpCode>()
        .ToDictionary(o => o.Value);

    [Fact]
    public void No_namespace_leads_back_to_itself()
    {
        var arrows = new Dictionary<string, Dictionary<string, string>>();
        foreach (var type in Core.GetTypes())
        {
            if (NameOf(type) is not { } from)
                continue;
            foreach (var (to, by) in References(type))
                if (NameOf(to) is { } other && other != from)
                    arrows.TryAdd(from, []);
            foreach (var (to, by) in References(type))
                if (NameOf(to) is { } other && other != from)
                    arrows[from].TryAdd(other, $"{type.Name}{by} → {to.Name}");
        }
        Assert.True(arrows.Count > 10, "too few namespaces were found");
        var done = new HashSet<string>();
        foreach (var start in arrows.Keys)
            Walk(start, []);

        void Walk(string at, List<string> path)
        {
            var back = path.IndexOf(at);
            Assert.True(
                back < 0,
                back < 0 ? "" : string.Join(", ", path.Skip(back).Zip(path.Skip(back + 1).Append(at), (a, b) => arrows[a][b]))
            );
            if (done.Contains(at) || !arrows.TryGetValue(at, out var next))
                return;
            foreach (var to in next.Keys)
                Walk(to, [.. path, at]);
            done.Add(at);
        }
    }

    /// <summary>The document and the tables know nothing of what is worked out from them.</summary>
    [Theory]
    [InlineData("InkyBadger.Core.Design", "InkyBadger.Core.Numbers")]
    [InlineData("InkyBadger.Core.Working")]
    [InlineData("InkyBadger.Core.Numbers")]
    [InlineData("InkyBadger.Core.Reference", "InkyBadger.Core.Design", "InkyBadger.Core.Numbers")]
    public void The_ground_stands_by_itself(string ground, params string[] on)
    {
        var leads = Core.GetTypes()
            .Where(t => NameOf(t) == ground)
            .SelectMany(References)
            .Select(r => NameOf(r.To))
            .OfType<string>()
            .Where(n => n != ground)
            .Distinct();
        Assert.Empty(leads.Except(on));
    }

    private static string? NameOf(Type type) =>
        type.Assembly == Core && type.Namespace?.StartsWith("InkyBadger.Core", StringComparison.Ordinal) == true ? type.Namespace : null;

    private static IEnumerable<(Type To, string By)> References(Type type)
    {
        if (type.BaseType is { } b)
            yield return (b, "");
        foreach (var i in type.GetInterfaces())
            yield return (i, "");
        foreach (var field in type.GetFields(All))
        foreach (var t in Parts(field.FieldType))
            yield return (t, "." + field.Name);
        foreach (var method in type.GetMethods(All).Cast<MethodBase>().Concat(type.GetConstructors(All)))
        {
            var signature = method.GetParameters().Select(p => p.ParameterType).Concat(method is MethodInfo m ? [m.ReturnType] : []);
            foreach (var t in signature.Concat(Body(method)).SelectMany(Parts))
                yield return (t, "." + method.Name);
        }
    }

    private static IEnumerable<Type> Body(MethodBase method)
    {
        if (method.GetMethodBody() is not { } body || body.GetILAsByteArray() is not { } il)
            yield break;
        foreach (var local in body.LocalVariables)
            yield return local.LocalType;
        Type[]? ofType = method.DeclaringType?.IsGenericType == true ? method.DeclaringType.GetGenericArguments() : null,
            ofMethod = method.IsGenericMethod ? method.GetGenericArguments() : null;
        for (var at = 0; at < il.Length; )
        {
            var value = il[at++] is var first && first == 0xFE ? unchecked((short)(0xFE00 | il[at++])) : first;
            var code = OpCodesByValue[value];
            if (code.OperandType is OperandType.InlineField or OperandType.InlineMethod or OperandType.InlineTok or OperandType.InlineType)
            {
                var member = method.Module.ResolveMember(BitConverter.ToInt32(il, at), ofType, ofMethod)!;
                yield return member as Type ?? member.DeclaringType!;
                if (member is MethodInfo called)
                    foreach (var t in called.IsGenericMethod ? called.GetGenericArguments() : [])
                        yield return t;
            }
            at += code.OperandType switch
            {
                OperandType.InlineNone => 0,
                OperandType.ShortInlineBrTarget or OperandType.ShortInlineI or OperandType.ShortInlineVar => 1,
                OperandType.InlineVar => 2,
                OperandType.InlineI8 or OperandType.InlineR => 8,
                OperandType.InlineSwitch => 4 + 4 * BitConverter.ToInt32(il, at),
                _ => 4,
            };
        }
    }

    private static IEnumerable<Type> Parts(Type type)
    {
        if (type.HasElementType)
            return Parts(type.GetElementType()!);
        return type.IsGenericType ? type.GetGenericArguments().SelectMany(Parts).Append(type.GetGenericTypeDefinition()) : [type];
    }
}
