package zander.core.rights;

import org.jspecify.annotations.Nullable;

/** What is wanted of the rights of entries, which may be another for each. */
public interface RightsWish {
  /**
   * @param path of the entry, absolute, in wire form
   * @return {@code null} when nothing is said of it
   */
  @Nullable TreeRights of(String path, boolean folder);
}
