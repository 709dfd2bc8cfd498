package zander.core.change.place;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.phrase.ExplainedException;
import zander.core.phrase.KeptPhrase;

/** Names for copies: {@code site-2.conf} beside {@code site.conf}. */
public final class FreeName {
  private static final int LONGEST_NAME = 255;
  private static final int TRIES = 1000;

  private FreeName() {}

  /** The first numbered name beside the path that is free. */
  public static RemotePath beside(RemoteFiles files, RemotePath path) throws IOException {
    for (int from = 2; from < TRIES; from += 20) {
      List<RemotePath> names = new ArrayList<>();
      for (int number = from; number < from + 20; number++) {
        names.add(path.parent().child(numbered(path.wireName(), number)));
      }
      List<RemoteAttributes> taken = files.lookAll(names);
      int free = taken.indexOf(null);
      if (free >= 0) {
        return names.get(free);
      }
    }
    throw new ExplainedException(KeptPhrase.COPIES_WITHOUT_END.of(path));
  }

  /** Before the endings, of which {@code .tar.gz} is one; a leading dot is no ending. */
  static String numbered(String name, int number) {
    int dot = name.lastIndexOf('.');
    if (dot > 0 && name.startsWith(".tar", dot - 4)) {
      dot -= 4;
    }
    if (name.length() - dot > LONGEST_NAME / 2) {
      dot = -1;
    }
    String start = dot <= 0 ? name : name.substring(0, dot);
    String end = dot <= 0 ? "" : name.substring(dot);
    String tail = "-" + number + end;
    int most = Math.max(1, LONGEST_NAME - tail.length());
    return start.substring(0, Math.min(start.length(), most)) + tail;
  }
}
