package zander.desk.rights.tree;

import java.util.Set;
import zander.core.files.AccountNames;
import zander.core.rights.RightsWish;
import zander.core.rights.TreeRights;
import zander.desk.words.Words;

/**
 * The same for some entries that were found below a folder, and nothing for the others.
 *
 * @param paths theirs, in wire form
 * @param words what is asked, in a line
 */
public record FoundRequest(Set<String> paths, TreeRights rights, String words)
    implements RightsRequest {
  private static final Words WORDS = Words.of(FoundRequest.class);

  public FoundRequest {
    paths = Set.copyOf(paths);
  }

  @Override
  public RightsWish wish(AccountNames names) {
    return (path, folder) -> paths.contains(path) ? rights : null;
  }

  @Override
  public String heading(String about) {
    return WORDS.say("rightsOfWhatWas", about);
  }
}
