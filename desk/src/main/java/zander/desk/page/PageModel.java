package zander.desk.page;

import java.io.IOException;
import java.net.URI;
import java.net.URISyntaxException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Comparator;
import java.util.Map;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Stream;
import javafx.beans.property.ObjectProperty;
import javafx.beans.property.ReadOnlyObjectProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.ReadOnlyStringProperty;
import javafx.beans.property.ReadOnlyStringWrapper;
import javafx.beans.property.SimpleObjectProperty;
import javax.net.ssl.SSLException;
import org.jspecify.annotations.Nullable;
import zander.core.page.ErrorLog;
import zander.core.page.PageAnswer;
import zander.core.page.PageOrigin;
import zander.core.page.PageProxy;
import zander.core.page.PageRoutes.Way;
import zander.desk.sheet.OpenDesk;
import zander.desk.words.Words;
import zander.desk.work.Browser;
import zander.desk.work.Message;
import zander.desk.work.Settings;

/**
 * The page that a file makes, as visitors get it: asked for at its public address, after each save
 * again, and what its server says when it does not come. Interface thread.
 */
public final class PageModel {
  private static final Words WORDS = Words.of(PageModel.class);

  /** RFC 9110, section 15.6.3. */
  private static final int BAD_GATEWAY = 502;

  private final OpenDesk desk;
  private final PageOrigin origin;
  private final ObjectProperty<Way> way = new SimpleObjectProperty<>();
  private final ReadOnlyStringWrapper address = new ReadOnlyStringWrapper();
  private final ReadOnlyObjectWrapper<Shown> shown = new ReadOnlyObjectWrapper<>();
  private final ReadOnlyObjectWrapper<State> state = new ReadOnlyObjectWrapper<>(State.LOADING);
  private final ReadOnlyStringWrapper elsewhere = new ReadOnlyStringWrapper("");
  private final TreeSet<String> refused = new TreeSet<>();
  private @Nullable PageProxy proxy;
  private @Nullable Path folder;
  private int asked;
  private volatile boolean closed;

  /**
   * A page to be shown; each time it is asked for, another one.
   *
   * @param folder for what it keeps, of this person alone and gone with it
   */
  public record Shown(String address, int times, Path folder) {}

  /**
   * How the page is.
   *
   * @param tag in a word or two
   * @param took empty while that is not known
   * @param said what is wrong; {@code null} for nothing
   */
  public record State(Kind kind, String tag, String took, @Nullable Message said) {
    static final State LOADING = new State(Kind.LOADING, "", "", null);

    /** What it comes to. */
    public enum Kind {
      LOADING,
      GOOD,
      /** The server answers with something else than the page. */
      ERROR,
      /** There is no answer. */
      FAILED
    }
  }

  private record Answer(PageAnswer answer, ErrorLog.@Nullable Line line, Path folder) {}

  /**
   * @param address of the page, by the marked folder that the file is in
   * @throws URISyntaxException when that is not an address of a page
   */
  public PageModel(OpenDesk desk, String address) throws URISyntaxException {
    this.desk = desk;
    this.origin = PageOrigin.of(address);
    this.address.set(whole(address));
    way.set(keptWay());
    way.addListener((observed, old, now) -> wayChosen(now));
  }

  /** With the site as it is written here, whatever letters and port it was given with. */
  private String whole(String given) {
    URI uri = URI.create(given);
    String path = uri.getRawPath().isEmpty() ? "/" : uri.getRawPath();
    return origin.text() + path + (uri.getRawQuery() == null ? "" : "?" + uri.getRawQuery());
  }

  private Way keptWay() {
    String kept = desk.settings().get(Settings.PAGE_WAYS).get(origin.text());
    for (Way one : Way.values()) {
      if (one.name().equals(kept)) {
        return one;
      }
    }
    return Way.EITHER;
  }

  private void wayChosen(Way now) {
    Map<String, String> kept = new TreeMap<>(desk.settings().get(Settings.PAGE_WAYS));
    kept.put(origin.text(), now.name());
    desk.settings().set(Settings.PAGE_WAYS, kept);
    endProxy();
    reload();
  }

  /** How it is reached; another one is kept for this origin. */
  public ObjectProperty<Way> wayProperty() {
    return way;
  }

  /** Where it is. */
  public ReadOnlyStringProperty addressProperty() {
    return address.getReadOnlyProperty();
  }

  /**
   * The part of each address that is the same for all: {@code http://levels.riverwatch.example}.
   */
  public String site() {
    return origin.text();
  }

  /** What is to be shown; {@code null} for nothing yet. */
  public ReadOnlyObjectProperty<Shown> shownProperty() {
    return shown.getReadOnlyProperty();
  }

  public ReadOnlyObjectProperty<State> stateProperty() {
    return state.getReadOnlyProperty();
  }

  /** Hosts that the page asked for something and that were not contacted, in words; or empty. */
  public ReadOnlyStringProperty elsewhereProperty() {
    return elsewhere.getReadOnlyProperty();
  }

  /**
   * Goes to another page of the same site.
   *
   * @param typed its address, or a path
   */
  public void go(String typed) {
    try {
      URI to = URI.create(origin.text() + "/").resolve(new URI(typed.strip()));
      if (PageOrigin.of(to.toString()).equals(origin)) {
        address.set(whole(to.toString()));
        reload();
        return;
      }
    } catch (URISyntaxException | IllegalArgumentException e) {
      // Told below, as what leads elsewhere.
    }
    state.set(
        new State(
            State.Kind.FAILED,
            WORDS.say("notShown"),
            "",
            new Message(WORDS.say("anotherSite"), WORDS.say("onlyThisSite", origin.text()))));
  }

  /** The page itself has gone on to another of its site, by a link or a redirection. */
  public void wentTo(String now) {
    try {
      if (PageOrigin.of(now).equals(origin)) {
        address.set(whole(now));
      }
    } catch (URISyntaxException e) {
      // It shows nothing that could be asked for again.
    }
  }

  /** Asks for it again. */
  public void reload() {
    if (closed) {
      return;
    }
    int mine = ++asked;
    String wanted = address.get();
    state.set(State.LOADING);
    refused.clear();
    elsewhere.set("");
    desk.background()
        .run(
            () -> ask(URI.create(wanted)),
            answer -> {
              if (mine == asked && !closed) {
                tell(answer);
                shown.set(new Shown(wanted, mine, answer.folder()));
              }
            },
            failure -> {
              if (mine == asked && !closed) {
                tellFailure(failure);
              }
            });
  }

  private void tell(Answer got) {
    PageAnswer answer = got.answer();
    String detail = PageWords.detail(answer, got.line());
    state.set(
        new State(
            answer.isError() ? State.Kind.ERROR : State.Kind.GOOD,
            PageWords.status(answer),
            PageWords.took(answer),
            detail.isEmpty() ? null : new Message(PageWords.status(answer), detail)));
  }

  private void tellFailure(Throwable failure) {
    state.set(
        new State(
            State.Kind.FAILED,
            WORDS.say("noAnswer"),
            "",
            PageWords.failure(origin, way.get(), failure)));
    desk.checkLine();
  }

  /** On a thread of its own. */
  private Answer ask(URI page) throws IOException {
    PageProxy by = proxy();
    PageAnswer answer;
    try {
      answer = PageAnswer.ask(page, by);
    } catch (SSLException e) {
      throw e;
    } catch (IOException e) {
      throw by.failure() == null ? e : by.failure();
    }
    // The proxy's own answer, and not the server's.
    if (answer.status() == BAD_GATEWAY && by.failure() != null) {
      throw by.failure();
    }
    String path = page.getPath().isEmpty() ? "/" : page.getPath();
    return new Answer(answer, answer.isError() ? line(path) : null, folder());
  }

  private synchronized Path folder() throws IOException {
    if (closed) {
      throw new IOException(WORDS.say("notShown"));
    }
    if (folder == null) {
      folder = Files.createTempDirectory("zander-page");
    }
    return folder;
  }

  private synchronized Void removeFolder() throws IOException {
    if (folder != null) {
      try (Stream<Path> all = Files.walk(folder)) {
        for (Path each : all.sorted(Comparator.reverseOrder()).toList()) {
          Files.deleteIfExists(each);
        }
      }
      folder = null;
    }
    return null;
  }

  /** The log is a help; where it cannot be had, the answer is told all the same. */
  private ErrorLog.@Nullable Line line(String path) {
    try {
      return ErrorLog.of(desk.files(), path);
    } catch (IOException e) {
      return null;
    }
  }

  private synchronized PageProxy proxy() throws IOException {
    if (closed) {
      throw new IOException(WORDS.say("notShown"));
    }
    if (proxy == null) {
      proxy = new PageProxy(origin, desk.pageRoutes().by(way.get()), this::refused);
    }
    PageProxies.lead(origin, proxy);
    return proxy;
  }

  private String refused(String host) {
    desk.background()
        .show(
            () -> {
              if (refused.add(host)) {
                elsewhere.set(WORDS.say("notContacted", String.join(", ", refused)));
              }
            });
    return WORDS.say("onlyThisSite", origin.text());
  }

  private synchronized void endProxy() {
    if (proxy != null) {
      PageProxy ended = proxy;
      proxy = null;
      PageProxies.end(origin, ended);
      desk.background().run(ended::close);
    }
  }

  /** Shows it in the person's own browser, which goes there by itself. */
  public void openInBrowser() {
    String to = address.get();
    desk.background()
        .run(
            () -> Browser.open(to),
            opened -> {
              if (!opened) {
                state.set(
                    new State(
                        State.Kind.FAILED,
                        WORDS.say("notShown"),
                        "",
                        new Message(WORDS.say("noBrowser"), to)));
              }
            },
            failure -> {});
  }

  /** Nothing is asked for any more, and nothing listens. */
  public void close() {
    closed = true;
    endProxy();
    desk.background().run(this::removeFolder, done -> {}, failure -> {});
  }
}
