package zander.desk.file;

import java.nio.charset.Charset;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import zander.core.edit.NotTextException;
import zander.core.edit.TextFile;
import zander.core.files.RemotePath;
import zander.desk.edit.Language;
import zander.desk.edit.Languages;
import zander.desk.sheet.OpenDesk;
import zander.desk.work.Setting;
import zander.desk.work.Settings;

/**
 * What a person said of a file's encoding and language, which is kept for the next time. Made on
 * the interface thread; what it tells, on any.
 */
record ToldForm(OpenDesk desk, String name, @Nullable String encoding, @Nullable String language) {
  /** More files than anyone tells apart by hand; beyond, what is told holds while they are open. */
  private static final int MOST = 2_000;

  static ToldForm of(OpenDesk desk, RemotePath path) {
    String name = desk.address() + path.wire();
    return new ToldForm(
        desk,
        name,
        desk.settings().get(Settings.ENCODINGS).get(name),
        desk.settings().get(Settings.LANGUAGES).get(name));
  }

  /** The encoding that was told; {@code null} for none that is known here. */
  @Nullable Charset charset() {
    try {
      return encoding == null ? null : Charset.forName(encoding);
    } catch (IllegalArgumentException e) {
      return null;
    }
  }

  /** The content as a text, in the encoding told where its own bytes leave it open. */
  TextFile decode(byte[] content) throws NotTextException {
    TextFile decoded = TextFile.decode(content);
    Charset told = charset();
    return told != null && decoded.isGuessed() ? TextFile.decode(content, told) : decoded;
  }

  /** The language told, or the one that the file shows. */
  Language languageOf(RemotePath path, String text) {
    return Optional.ofNullable(language)
        .flatMap(Languages::named)
        .orElseGet(() -> Languages.of(path, text));
  }

  void tellEncoding(Charset told) {
    keep(Settings.ENCODINGS, told.name());
  }

  void tellLanguage(Language told) {
    keep(Settings.LANGUAGES, told.name());
  }

  private void keep(Setting<Map<String, String>> setting, String value) {
    Map<String, String> all = new TreeMap<>(desk.settings().get(setting));
    if (all.size() < MOST || all.containsKey(name)) {
      all.put(name, value);
      desk.settings().set(setting, all);
    }
  }
}
