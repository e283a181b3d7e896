using Microsoft.AspNetCore.OpenApi;
using Microsoft.OpenApi;

namespace InkyBadger.Server.Hosting;

/// <summary>
/// Answers always carry every field, null where it has no value; the OpenAPI document says so, and the types made from it are exact.
/// </summary>
public sealed class EveryFieldIsWritten : IOpenApiSchemaTransformer
{
    public Task TransformAsync(OpenApiSchema schema, OpenApiSchemaTransformerContext context, CancellationToken cancellationToken)
    {
        if (
            schema.Properties is { Count: > 0 } properties
            && context.JsonTypeInfo.Type.Namespace?.StartsWith("InkyBadger", StringComparison.Ordinal) == true
        )
        {
            schema.Required = properties.Keys.ToHashSet();
            // What is only ever read cannot be set to nothing either.
            foreach (var property in context.JsonTypeInfo.Properties)
                if (
                    property is { Set: null, IsGetNullable: false }
                    && properties.TryGetValue(property.Name, out var at)
                    && at is OpenApiSchema { Type: { } type } own
                )
                    own.Type = type & ~JsonSchemaType.Null;
        }
        return Task.CompletedTask;
    }
}
