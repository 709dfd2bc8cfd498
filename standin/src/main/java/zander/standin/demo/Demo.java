package zander.standin.demo;

import java.io.Closeable;
import java.io.IOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.FileTime;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.KeyPair;
import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import zander.standin.server.StandinServer;
import zander.standin.world.Caller;
import zander.standin.world.Machine;
import zander.standin.world.OpenFile;
import zander.standin.world.World;

/**
 * The running demo: five servers and the public site on free loopback ports, and a home folder on
 * this computer with the warden's key and a copy of the site that has drifted a little.
 */
public final class Demo implements Closeable {
  public static final String DOMAIN = ".riverwatch.example";

  private static final List<String> NAMES =
      List.of("levels-web", "readings-store", "lab-box", "gate", "mirror");

  /** The name of the public site. */
  public static final String SITE = "levels" + DOMAIN;

  private final Map<String, StandinServer> servers = new LinkedHashMap<>();
  private DemoSite site;
  private final Path home;

  private Demo(Path home) {
    this.home = home;
  }

  /** Starts the servers and fills the home folder, which must be empty or missing. */
  public static Demo start(Path home) throws IOException {
    Demo demo = new Demo(home);
    KeyPair key = DemoKeys.pair("warden");
    for (String name : NAMES) {
      Machine machine = WorldFile.load(name, Clock.systemDefaultZone());
      authorize(machine, DemoKeys.publicLine(key, "warden@desk"));
      demo.servers.put(name, StandinServer.start(machine, DemoKeys.pair("host " + name)));
    }
    demo.servers.get("gate").setForwarding(demo::portOf);
    StandinServer web = demo.servers.get("levels-web");
    demo.site = DemoSite.start(web.machine(), "/srv/levels/site", "web");
    web.setForwarding(
        host -> host.equals(SITE) || host.equals("127.0.0.1") ? demo.site.port() : -1);
    DemoKeys.writePrivate(key, "warden@desk", demo.keyFile());
    demo.rememberAnotherMirror();
    demo.fillSite();
    return demo;
  }

  private static void authorize(Machine machine, String line) throws IOException {
    Caller warden = machine.accounts().caller(machine.accounts().user("warden").orElseThrow());
    OpenFile file =
        machine
            .world()
            .open(
                warden,
                "/home/warden/.ssh/authorized_keys",
                new World.Open(false, true, true, true, false, 0600));
    byte[] bytes = line.getBytes(StandardCharsets.UTF_8);
    file.write(0, bytes, 0, bytes.length);
  }

  /** The mirror was set up anew: the person's known_hosts still has the key it had before. */
  private void rememberAnotherMirror() throws IOException {
    String before = DemoKeys.publicLine(DemoKeys.pair("host mirror before"), "");
    Path known = home.resolve(".ssh").resolve("known_hosts");
    Files.writeString(known, "mirror" + DOMAIN + " " + before);
    Files.setPosixFilePermissions(known, PosixFilePermissions.fromString("rw-------"));
  }

  /** The copy here: most files as over there, one older, one newer, four pictures more. */
  private void fillSite() throws IOException {
    Machine machine = servers.get("levels-web").machine();
    Path site = siteFolder();
    copy(machine, "/srv/levels/site/img", site.resolve("img"));
    copy(machine, "/srv/levels/site/stations", site.resolve("stations"));
    for (int i = 49; i <= 52; i++) {
      String svg = WorldFile.text("files/gauge.svg").replace("{n}", String.format("%03d", i));
      Files.writeString(site.resolve("img").resolve(String.format("gauge-%03d.svg", i)), svg);
    }
    long now = Instant.now().getEpochSecond();
    write(
        site.resolve("index.html"), "index.html", text -> text.replace("126", "124"), now - 86_400);
    write(
        site.resolve("water.css"),
        "water.css",
        text -> text + "\nh2 {\n  color: var(--reed);\n}\n",
        now - 600);
    long charted = machine.world().stat(Caller.ROOT, "/srv/levels/site/tide-chart.js").modified();
    write(site.resolve("tide-chart.js"), "tide-chart.js", text -> text, charted);
  }

  private static void write(
      Path file, String resource, java.util.function.UnaryOperator<String> change, long time)
      throws IOException {
    Files.writeString(file, change.apply(WorldFile.text("files/" + resource)));
    Files.setLastModifiedTime(file, FileTime.from(Instant.ofEpochSecond(time)));
  }

  private static void copy(Machine machine, String from, Path to) throws IOException {
    Files.createDirectories(to);
    for (String name : machine.world().list(Caller.ROOT, from)) {
      OpenFile file = machine.world().open(Caller.ROOT, from + "/" + name, World.Open.READ);
      Path copy = to.resolve(name);
      Files.write(copy, file.read(0, (int) file.size()));
      Files.setLastModifiedTime(copy, FileTime.from(Instant.ofEpochSecond(file.stat().modified())));
    }
  }

  public Path home() {
    return home;
  }

  public Path keyFile() {
    return home.resolve(".ssh").resolve("warden_ed25519");
  }

  public Path siteFolder() {
    return home.resolve("riverwatch").resolve("site");
  }

  public StandinServer server(String name) {
    return servers.get(name);
  }

  /** The port behind a made-up host name, as every made-up server knows it; -1 for others. */
  public int portOf(String host) {
    if (host.equals(SITE)) {
      return site.port();
    }
    for (Map.Entry<String, StandinServer> entry : servers.entrySet()) {
      if (host.equals(entry.getKey() + DOMAIN)) {
        return entry.getValue().port();
      }
    }
    return -1;
  }

  /** A port of the loopback that nobody listens on. */
  public int closedPort() throws IOException {
    try (ServerSocket free = new ServerSocket(0, 1, InetAddress.getLoopbackAddress())) {
      return free.getLocalPort();
    }
  }

  @Override
  public void close() {
    servers.values().forEach(StandinServer::close);
    site.close();
  }
}
