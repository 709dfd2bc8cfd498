package zander.core.connect;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.util.Arrays;
import java.util.Iterator;
import javax.security.auth.login.FailedLoginException;
import org.apache.sshd.common.NamedResource;
import org.apache.sshd.common.config.keys.FilePasswordProvider;
import org.apache.sshd.common.util.security.SecurityUtils;
import zander.core.connect.ConnectFailure.Reason;

/** Reads private key files (OpenSSH and PEM), asking for a passphrase where one is needed. */
final class KeyFile {
  private static final int MOST_TRIES = 3;

  private KeyFile() {}

  static KeyPair load(Path file, ServerAddress address, SignInTalk talk) throws ConnectFailure {
    for (int tries = 0; ; tries++) {
      Passphrase passphrase = new Passphrase(file, talk, tries);
      try (InputStream in = Files.newInputStream(file)) {
        Iterable<KeyPair> pairs =
            SecurityUtils.loadKeyPairIdentities(
                null, NamedResource.ofName(file.toString()), in, passphrase);
        Iterator<KeyPair> found = pairs == null ? null : pairs.iterator();
        if (found == null || !found.hasNext()) {
          throw failure(Reason.KEY_FILE_UNREADABLE, address, file + " holds no private key", null);
        }
        return found.next();
      } catch (ConnectFailure e) {
        throw e;
      } catch (NoSuchFileException e) {
        throw failure(Reason.KEY_FILE_MISSING, address, file.toString(), e);
      } catch (IOException | GeneralSecurityException | RuntimeException e) {
        if (passphrase.givenUp) {
          throw failure(Reason.GIVEN_UP, address, "no passphrase given", e);
        }
        if (!passphrase.asked) {
          throw failure(Reason.KEY_FILE_UNREADABLE, address, file.toString(), e);
        }
        if (tries + 1 == MOST_TRIES) {
          throw failure(Reason.WRONG_PASSPHRASE, address, file.toString(), e);
        }
      }
    }
  }

  private static ConnectFailure failure(
      Reason reason, ServerAddress address, String detail, Throwable cause) {
    return new ConnectFailure(SignInStep.SIGN_IN, reason, address, detail, cause);
  }

  /** The library takes a passphrase only as a string; it lives as long as one decryption. */
  private static final class Passphrase implements FilePasswordProvider {
    private final Path file;
    private final SignInTalk talk;
    private final int tries;
    private boolean asked;
    private boolean givenUp;

    Passphrase(Path file, SignInTalk talk, int tries) {
      this.file = file;
      this.talk = talk;
      this.tries = tries;
    }

    @Override
    public String getPassword(
        org.apache.sshd.common.session.SessionContext session, NamedResource key, int index)
        throws IOException {
      asked = true;
      char[] secret = talk.passphrase(file, tries);
      if (secret == null) {
        givenUp = true;
        throw new IOException(new FailedLoginException("no passphrase given"));
      }
      try {
        return new String(secret);
      } finally {
        Arrays.fill(secret, '\0');
      }
    }
  }
}
