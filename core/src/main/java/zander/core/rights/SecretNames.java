package zander.core.rights;

import java.util.Locale;
import java.util.regex.Pattern;

/**
 * Names by which what is in a file is likely to be a secret: private keys (OpenSSH's, PEM), files
 * of passwords and tokens, environments of services.
 */
public final class SecretNames {
  private static final Pattern NAME =
      Pattern.compile(
          "id_(rsa|dsa|ecdsa|ed25519)(_sk)?|ssh_host_.*_key|.*\\.(pem|key|p12|pfx|jks|keytab|kdbx)"
              + "|\\.?env(\\..*)?|.*\\.env|g?shadow-?|\\.?htpasswd|\\.pgpass|\\.my\\.cnf|\\.netrc"
              + "|.*(secret|passwd|password|token|credential).*");

  private static final Pattern PUBLIC = Pattern.compile(".*\\.(pub|html?|css|js|php|md)|passwd-?");

  private SecretNames() {}

  /**
   * @param path in wire form
   */
  public static boolean isSecret(String path) {
    String name = path.substring(path.lastIndexOf('/') + 1).toLowerCase(Locale.ROOT);
    return NAME.matcher(name).matches() && !PUBLIC.matcher(name).matches();
  }
}
