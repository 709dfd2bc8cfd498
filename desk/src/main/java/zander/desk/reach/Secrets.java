package zander.desk.reach;

import java.util.HashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import zander.core.work.SecretBytes;

/** Secrets kept in memory for the life of one desk. Safe for several threads. */
public final class Secrets {
  private final Map<String, char[]> held = new HashMap<>();

  /** A copy for the caller to wipe; {@code null} when it is not kept. */
  synchronized char @Nullable [] get(String name) {
    char[] letters = held.get(name);
    return letters == null ? null : letters.clone();
  }

  /** Keeps a copy. */
  synchronized void hold(String name, char[] letters) {
    SecretBytes.wipe(held.put(name, letters.clone()));
  }

  synchronized void forget(String name) {
    SecretBytes.wipe(held.remove(name));
  }

  /** Wipes all of them. */
  public synchronized void wipe() {
    held.values().forEach(SecretBytes::wipe);
    held.clear();
  }
}
