package zander.desk.rights.tree;

import java.nio.file.Path;
import zander.core.files.AccountNames;
import zander.core.files.RemotePath;
import zander.core.local.LocalModes;
import zander.core.rights.RightsWish;
import zander.desk.words.Words;

/** Modes as on this computer; owners and groups stay. */
public final class LocalRequest implements RightsRequest {
  private static final Words WORDS = Words.of(LocalRequest.class);

  private final RemotePath there;
  private final Path here;

  /**
   * @param there the folder of the server
   * @param here the folder of this computer that goes with it
   */
  public LocalRequest(RemotePath there, Path here) {
    this.there = there;
    this.here = here;
  }

  @Override
  public RightsWish wish(AccountNames names) {
    return new LocalModes(there, here);
  }

  @Override
  public String words() {
    return WORDS.say("modesAsInOn", here);
  }

  @Override
  public String heading(String about) {
    return WORDS.say("rightsOfAsOn", about);
  }
}
