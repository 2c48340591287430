var app = Microsoft.AspNetCore.Builder.WebApplication.Create(args);
await app.RunAsync();
