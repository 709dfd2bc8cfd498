package zander.core.access;

import java.io.IOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import zander.core.files.FileKind;
import zander.core.files.RemoteAttributes;
import zander.core.files.RemoteFailure;
import zander.core.files.RemoteFailure.Reason;
import zander.core.files.RemoteFiles;
import zander.core.files.RemotePath;
import zander.core.phrase.FilePhrase;
import zander.core.phrase.FileStep;

/**
 * All that is gone through to reach a path, with links followed as the kernel does it
 * (path_resolution(7)).
 *
 * @param steps from the root on, each once
 * @param named where the entry's own name is: the link, if it is one
 * @param entry where it leads
 */
record Way(List<Step> steps, RemotePath named, RemotePath entry) {
  /** As many as Linux follows. */
  private static final int MOST_LINKS = 40;

  /**
   * @param is {@code null} where it cannot be looked at
   * @param target where a link leads, in wire form; {@code null} for what is none
   * @param last whether it is a link at the end of a path
   */
  record Step(RemotePath path, RemoteAttributes is, @Nullable String target, boolean last) {}

  /** Waits: once for the path, and twice for each link on it. */
  static Way to(RemoteFiles files, RemotePath path) throws IOException {
    Map<RemotePath, Step> steps = new LinkedHashMap<>();
    RemotePath named = null;
    RemotePath at = path;
    for (int links = 0; links <= MOST_LINKS; links++) {
      List<RemotePath> chain = at.chain();
      List<RemoteAttributes> found = files.lookAll(chain);
      int end = chain.size() - 1;
      int link = firstLink(found);
      String target = link < 0 ? "" : files.readLink(chain.get(link));
      for (int i = 0; i <= (link < 0 ? end : link); i++) {
        boolean is = i == link;
        steps.putIfAbsent(
            chain.get(i), new Step(chain.get(i), found.get(i), is ? target : null, is && i == end));
      }
      if (named == null && (link < 0 || link == end)) {
        named = chain.get(end);
      }
      if (link < 0) {
        return new Way(List.copyOf(steps.values()), Objects.requireNonNull(named), chain.get(end));
      }
      at = behind(chain, link, target);
    }
    throw new RemoteFailure(
        Reason.FAILED, FileStep.LOOK_AT, path, FilePhrase.TOO_MANY_LINKS.of(), null);
  }

  private static int firstLink(List<RemoteAttributes> found) {
    for (int i = 0; i < found.size(); i++) {
      if (found.get(i) != null && found.get(i).kind() == FileKind.LINK) {
        return i;
      }
    }
    return -1;
  }

  /** What is above a link is no link, so that what leads up from there leads up by name. */
  private static RemotePath behind(List<RemotePath> chain, int link, String target) {
    List<String> rest = new ArrayList<>();
    chain.subList(link + 1, chain.size()).forEach(one -> rest.add(one.wireName()));
    String from = target.startsWith("/") ? "" : chain.get(link - 1).wire();
    return RemotePath.ofWire(from + "/" + target + "/" + String.join("/", rest));
  }
}
