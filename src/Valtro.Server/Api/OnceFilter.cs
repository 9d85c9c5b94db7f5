using System.Security.Cryptography;
using System.Text.Json;
using Microsoft.AspNetCore.Http.Metadata;
using Valtro.Application;
using Valtro.Application.Accounts;
using Valtro.Core;
using Valtro.Store;

namespace Valtro.Server.Api;

/// <summary>What is asked with an Idempotency-Key is done once: the same again gets the first answer, something else under the key is
/// refused.</summary>
internal sealed class OnceFilter(Access access, AskedStore store) : IEndpointFilter
{
    public const string Header = "Idempotency-Key";

    public async ValueTask<object?> InvokeAsync(EndpointFilterInvocationContext context, EndpointFilterDelegate next)
    {
        var key = context.HttpContext.Request.Headers[Header].ToString();
        if (key.Length == 0)
            return await next(context);
        if (key.Length > 100 || !key.All(char.IsAsciiLetterOrDigit) && !Guid.TryParse(key, out _))
            throw new RuleException(Header, "request.key");
        var account = (await access.ViewerAsync()).AccountId;
        var asked = new AskedOnce(account, key, Digest(context));
        if (await store.FindAsync(account, key) is { } known)
            return Again(asked, known);
        AskedOnce.Current = asked;
        try
        {
            var result = await next(context);
            var answered = result is INestedHttpResult nested ? nested.Result : result;
            if (answered is IStatusCodeHttpResult { StatusCode: >= 200 and < 300 and var status } and IValueHttpResult { Value: { } value })
                await store.AnswerAsync(asked, status, JsonSerializer.Serialize(value, value.GetType(), Json.Options));
            return result;
        }
        catch (AskedAlreadyException)
        {
            return Again(asked, (await store.FindAsync(account, key))!);
        }
        finally
        {
            AskedOnce.Current = null;
        }
    }

    private static IResult Again(AskedOnce asked, AnsweredOnce known)
    {
        if (!known.Digest.AsSpan().SequenceEqual(asked.Digest))
            return Problems.Of(Problem.AskedOtherwise);
        return known is { Status: { } status, Answer: { } answer }
            ? Results.Text(answer, "application/json", statusCode: status)
            : Problems.Of(Problem.AskedAlready);
    }

    /// <summary>Of where it was asked and of all that the request says.</summary>
    private static byte[] Digest(EndpointFilterInvocationContext context)
    {
        var body = context.HttpContext.GetEndpoint()!.Metadata.GetMetadata<IAcceptsMetadata>()?.RequestType;
        var said = context.Arguments.Where(argument => argument is not null && argument.GetType() == body);
        return SHA256.HashData(JsonSerializer.SerializeToUtf8Bytes(
            new
            {
                path = context.HttpContext.Request.Path.Value,
                said = said.Select(one => JsonSerializer.SerializeToNode(one, one!.GetType(), Json.Options))
            }, Json.Options));
    }
}
