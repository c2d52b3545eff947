using System.Security.Cryptography;
using Microsoft.AspNetCore.DataProtection;

namespace Pyrometron.Server.Access;

/// <summary>
/// Tells browsers that signed in with an account before: mistakes made elsewhere do not slow them. (The device cookie that OWASP
/// describes against locking people out.)
/// </summary>
internal sealed class KnownDevices(IDataProtectionProvider protection)
{
    private const string Cookie = "__Host-pyrometron-known";
    private readonly IDataProtector _protector = protection.CreateProtector("known-device");

    /// <summary>The name of the browser, where it signed in with this account before; else null.</summary>
    public string? NameOf(HttpContext context, string code)
    {
        if (context.Request.Cookies[Cookie] is not { } cookie)
            return null;
        try
        {
            var said = _protector.Unprotect(cookie);
            return said.StartsWith($"{code} ", StringComparison.Ordinal) ? said : null;
        }
        catch (CryptographicException)
        {
            return null;
        }
    }

    /// <summary>Has the browser remember that it signed in.</summary>
    public void Remember(HttpContext context, string code)
    {
        if (NameOf(context, code) is null)
            context.Response.Cookies.Append(
                Cookie,
                _protector.Protect($"{code} {Guid.NewGuid()}"),
                new CookieOptions
                {
                    Secure = true,
                    HttpOnly = true,
                    SameSite = SameSiteMode.Strict,
                    IsEssential = true,
                    MaxAge = TimeSpan.FromDays(365),
                }
            );
    }
}
