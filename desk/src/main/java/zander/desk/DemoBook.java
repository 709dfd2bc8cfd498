package zander.desk;

import java.util.List;
import zander.core.book.Mark;
import zander.core.book.MarkedFolder;
import zander.core.book.ServerBook;
import zander.core.book.ServerEntry;
import zander.core.book.SignIn;
import zander.core.connect.address.ServerAddress;
import zander.standin.demo.Demo;

/** The demo's server book: what Riverwatch has, and what can go wrong with it. */
final class DemoBook {
  /** A server that refuses every connection. */
  static final String SILENT = "flood-siren" + Demo.DOMAIN;

  private static final SignIn KEY = SignIn.byKey(".ssh/warden_ed25519");

  private DemoBook() {}

  static ServerBook make() {
    return ServerBook.of(
        List.of(
            entry("levels-web", "warden", KEY)
                .withGroup("Public")
                .withMark(Mark.LIVE)
                .withPlaces(
                    "/srv/levels/site", "riverwatch/site", "the public site, settings, feeds, logs")
                .withService("web")
                .withFolders(
                    List.of(
                        MarkedFolder.of(
                            "Public site",
                            "/srv/levels/site",
                            "riverwatch/site",
                            "http://levels.riverwatch.example/"),
                        MarkedFolder.of("Settings", "/etc/levels", null, null),
                        MarkedFolder.of("Station feeds", "/srv/levels/feeds", null, null),
                        MarkedFolder.of("Logs", "/var/log/levels", null, null))),
            entry("mirror", "warden", KEY)
                .withGroup("Public")
                .withPlaces(null, null, "a second copy of the site"),
            entry("gate", "warden", KEY).withGroup("Inner").withPlaces(null, null, "the jump host"),
            entry("readings-store", "warden", KEY)
                .withGroup("Inner")
                .withMark(Mark.LIVE)
                .withJump(List.of("gate"))
                .withPlaces("/srv/readings", null, "years of small station files")
                .withFolders(List.of(MarkedFolder.of("Readings", "/srv/readings", null, null))),
            entry("flood-siren", "warden", KEY)
                .withGroup("Inner")
                .withPlaces(null, null, "switched off since spring"),
            entry("lab-box", "warden", KEY)
                .withGroup("Trial")
                .withMark(Mark.TRIAL)
                .withPlaces(null, null, "for trying things"),
            ServerEntry.of(
                    "lab-uploads",
                    new ServerAddress("deploy", "lab-box" + Demo.DOMAIN, 22),
                    SignIn.byPassword())
                .withGroup("Trial")
                .withMark(Mark.TRIAL)
                .withPlaces(null, null, "still by password; give it a key")));
  }

  private static ServerEntry entry(String name, String account, SignIn signIn) {
    return ServerEntry.of(name, new ServerAddress(account, name + Demo.DOMAIN, 22), signIn);
  }
}
