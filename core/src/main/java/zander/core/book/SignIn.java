package zander.core.book;

import com.fasterxml.jackson.annotation.JsonIgnoreProperties;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.nio.file.Path;
import org.jspecify.annotations.Nullable;
import zander.core.connect.signin.SignInMethods;

/**
 * How to sign in at a server. Never holds a secret.
 *
 * @param keyFile the private key to offer first, absolute or from the home folder, or {@code null}
 * @param certificate the certificate to offer with it, or {@code null}
 * @param agent whether the agent's other keys may be offered too
 * @param password whether a password, or answers to questions, may be asked for
 * @param oldAlgorithms whether algorithms that are not safe any more may be used with this server
 */
@JsonIgnoreProperties(ignoreUnknown = true)
@JsonInclude(JsonInclude.Include.NON_NULL)
public record SignIn(
    @Nullable String keyFile,
    @Nullable String certificate,
    @Nullable Boolean agent,
    @Nullable Boolean password,
    @Nullable Boolean oldAlgorithms) {
  public SignIn {
    agent = agent == null || agent;
    password = password == null || password;
    // Left out where it is not chosen, as in every entry that was kept before there was the choice.
    oldAlgorithms = Boolean.TRUE.equals(oldAlgorithms) ? true : null;
  }

  public SignIn(
      @Nullable String keyFile, @Nullable String certificate, Boolean agent, Boolean password) {
    this(keyFile, certificate, agent, password, null);
  }

  /** Whether keys of the agent are tried that no file stands for. */
  public boolean triesAgent() {
    return Boolean.TRUE.equals(agent);
  }

  /** Whether a password, or the server's questions, are tried. */
  public boolean triesPassword() {
    return Boolean.TRUE.equals(password);
  }

  public boolean allowsOldAlgorithms() {
    return Boolean.TRUE.equals(oldAlgorithms);
  }

  public static SignIn byKey(String keyFile) {
    return new SignIn(keyFile, null, false, false);
  }

  public static SignIn byPassword() {
    return new SignIn(null, null, false, true);
  }

  /**
   * @param home what relative names and {@code ~} begin at
   */
  SignInMethods ways(Path home) {
    return new SignInMethods(
        path(keyFile, home),
        path(certificate, home),
        triesAgent(),
        triesPassword(),
        allowsOldAlgorithms());
  }

  private static @Nullable Path path(@Nullable String text, Path home) {
    if (text == null || text.isBlank()) {
      return null;
    }
    return home.resolve(text.startsWith("~/") ? text.substring(2) : text);
  }
}
