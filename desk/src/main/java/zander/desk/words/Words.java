package zander.desk.words;

import java.util.MissingResourceException;
import java.util.ResourceBundle;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * What one class says to people, by key, from the bundle of its area in {@code
 * zander/desk/words/*.properties}. The area is the first package below {@code zander.desk}, or
 * below {@code zander.desk.view}, so that a model and its view share a bundle; {@code window} is
 * that of both roots. A key that the class does not have is looked up in {@code common}.
 *
 * <p>In a text {@code {0}} stands for the first value, {@code {1}} for the next; braces with
 * anything else in them are text. Nothing else has a meaning, an apostrophe neither. The language
 * is that of the process ({@link java.util.Locale#getDefault()}); what a bundle of that language
 * lacks comes in English. Any thread.
 */
public final class Words {
  private static final String ROOT = "zander.desk";
  private static final Pattern VALUE = Pattern.compile("\\{(\\d)}");
  private static final ResourceBundle COMMON = bundle("common");
  private static final ResourceBundle COUNTED = bundle("counted");

  private final ResourceBundle area;
  private final String prefix;

  private Words(Class<?> user) {
    area = bundle(area(user.getPackageName()));
    prefix = user.getSimpleName() + ".";
  }

  /** The words of this class. */
  public static Words of(Class<?> user) {
    return new Words(user);
  }

  /**
   * @param values what stands in the places of {@code {0}} and so on, as it is
   * @throws MissingResourceException when neither the class nor the common bundle has the key
   */
  public String say(String key, Object... values) {
    String own = prefix + key;
    return fill(area.containsKey(own) ? area.getString(own) : COMMON.getString(key), values);
  }

  /**
   * A number of things: {@code 1 file}, {@code 3 files}.
   *
   * @param shown the number as it is shown
   * @param thing a key of {@code counted}, without {@code .one} and {@code .many}
   */
  public static String counted(long number, String shown, String thing) {
    return fill(COUNTED.getString(thing + (number == 1 ? ".one" : ".many")), shown);
  }

  static String area(String packageName) {
    String below = packageName.substring(ROOT.length());
    if (below.startsWith(".view")) {
      below = below.substring(".view".length());
    }
    return below.isEmpty() ? "window" : below.substring(1).split("\\.")[0];
  }

  static String fill(String text, Object... values) {
    return values.length == 0
        ? text
        : VALUE
            .matcher(text)
            .replaceAll(
                found -> {
                  int place = Integer.parseInt(found.group(1));
                  return Matcher.quoteReplacement(
                      place < values.length ? String.valueOf(values[place]) : found.group());
                });
  }

  static ResourceBundle bundle(String name) {
    return ResourceBundle.getBundle("zander.desk.words." + name);
  }
}
