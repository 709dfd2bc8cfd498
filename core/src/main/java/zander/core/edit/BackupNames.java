package zander.core.edit;

import java.util.regex.Pattern;

/**
 * Names under which a file's other versions lie beside it: left by people, editors and package
 * managers (dpkg(1), rpm(8), ucf(1), patch(1)).
 */
public final class BackupNames {
  private static final Pattern ENDS =
      Pattern.compile(
          "(~|\\.~\\d+~|[.-](?i:bak|backup|old|orig|save|saved|copy|new|dist|sample|example|default)[0-9]*"
              + "|\\.dpkg-(old|dist|new|bak|tmp)|\\.ucf-(old|dist|new)|\\.(rpmnew|rpmsave|rpmorig)|\\.pac(new|save|orig)"
              // A date, with a time or a number behind it.
              + "|[._-](19|20)\\d\\d[-_.]?\\d\\d[-_.]?\\d\\d([-_.T]?\\d{1,6}([-_.:]?\\d\\d){0,2})?|\\.\\d{1,3}){1,2}");

  private BackupNames() {}

  /**
   * Whether a name is that of another version of a file.
   *
   * @param name of the file
   * @param other of what lies beside it
   */
  public static boolean isOneOf(String name, String other) {
    if (other.equals("#" + name + "#")) {
      return true;
    }
    int dot = name.lastIndexOf('.');
    boolean behind = isEnd(other, name);
    // site-old.conf beside site.conf
    boolean within =
        dot > 0
            && other.endsWith(name.substring(dot))
            && other.length() > name.length()
            && isEnd(
                other.substring(0, other.length() - (name.length() - dot)), name.substring(0, dot));
    return behind || within;
  }

  private static boolean isEnd(String other, String name) {
    return other.startsWith(name) && ENDS.matcher(other.substring(name.length())).matches();
  }
}
