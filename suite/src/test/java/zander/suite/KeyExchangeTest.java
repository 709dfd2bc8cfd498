package zander.suite;

import static org.assertj.core.api.Assertions.assertThat;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import zander.core.connect.Connector;
import zander.core.connect.address.ServerAddress;
import zander.core.connect.channel.OfferedAlgorithms;
import zander.core.connect.report.ConnectFailure;
import zander.core.connect.report.ConnectFailure.Reason;
import zander.core.connect.signin.SignInMethods;
import zander.core.trust.KnownHosts;
import zander.desk.work.FailureWords;
import zander.standin.demo.DemoKeys;

/** What is agreed on before anybody signs in, and who may not take part in it. */
class KeyExchangeTest extends SshdReachFixture {
  private static final SignInMethods OLD_ALLOWED = new SignInMethods(null, null, false, true, true);

  private static final Pattern DOCUMENTED = Pattern.compile("(?m)^\\| [^|]* \\| (`[^|]*`) \\|$");

  private Connector loopback() {
    Connector made =
        new Connector(
            new KnownHosts(folder.resolve("known_hosts")),
            address ->
                List.of(new InetSocketAddress(InetAddress.getLoopbackAddress(), address.port())),
            null,
            Duration.ofSeconds(20));
    open.add(made);
    return made;
  }

  private ConnectFailure failure(RawServer server, SignInMethods ways) {
    return failure(
        loopback(),
        new ServerAddress(WARDEN, "localhost", server.port()),
        ways,
        TestPrompts.accepting());
  }

  /** The lists that are sent to a server: exchanges, host keys, ciphers and checks. */
  private List<List<String>> offered(SignInMethods ways) throws Exception {
    BlockingQueue<byte[]> read = new LinkedBlockingQueue<>();
    try (RawServer server =
        new RawServer(
            line -> {
              line.greet();
              read.add(line.packet());
              line.hangUp();
            })) {
      failure(server, ways);
    }
    List<List<String>> lists = RawServer.lists(read.poll(20, TimeUnit.SECONDS));
    assertThat(lists.get(2)).isEqualTo(lists.get(3));
    assertThat(lists.get(4)).isEqualTo(lists.get(5));
    return List.of(lists.get(0), lists.get(1), lists.get(2), lists.get(4));
  }

  @Test
  void offersWhatIsDocumentedAndNothingOld() throws Exception {
    List<List<String>> offered = new ArrayList<>();
    for (List<String> names : offered(SignInMethods.byPassword())) {
      // Two of the names are marks, and no algorithms (RFC 8308, PROTOCOL of OpenSSH).
      offered.add(names.stream().filter(name -> !name.matches("ext-info-c|kex-strict.*")).toList());
    }
    assertThat(offered).allSatisfy(names -> assertThat(names).noneMatch(OfferedAlgorithms::isOld));
    String security = Files.readString(Path.of("../docs/SECURITY.md"));
    String part = security.substring(security.indexOf("## What is offered"));
    List<List<String>> documented = new ArrayList<>();
    Matcher row = DOCUMENTED.matcher(part);
    while (row.find()) {
      documented.add(List.of(row.group(1).replace("`", "").split(", ")));
    }
    assertThat(documented).isEqualTo(offered);
  }

  @Test
  void oldOnesComeLastWhereTheyAreAllowed() throws Exception {
    for (List<String> names : offered(OLD_ALLOWED)) {
      List<Boolean> old = names.stream().map(OfferedAlgorithms::isOld).toList();
      int first = old.indexOf(true);
      assertThat(first).isPositive();
      assertThat(old.subList(first, old.size()).stream().filter(one -> !one))
          .as("%s", names)
          .hasSizeLessThanOrEqualTo(2);
    }
  }

  @Test
  void aServerWithNothingElseIsToldAsSuchAndCanBeAllowed() throws Exception {
    SystemSshd sshd =
        start(
            "Ciphers aes256-cbc,3des-cbc",
            "MACs hmac-sha1",
            "KexAlgorithms diffie-hellman-group14-sha1");
    Connector connector = loopback();
    ConnectFailure told =
        failure(
            connector,
            sshd.address(WARDEN),
            SignInMethods.byKey(sshd.keyFile()),
            TestPrompts.accepting());
    assertThat(told.reason()).isEqualTo(Reason.NO_COMMON_ALGORITHM);
    assertThat(FailureWords.of(told).headline())
        .isEqualTo("localhost has only algorithms that are no longer safe");
    assertThat(zander.desk.work.SignInWords.cures(told)).anyMatch(cure -> cure.contains("entry"));
    connector
        .open(
            sshd.address(WARDEN),
            new SignInMethods(sshd.keyFile(), null, false, false, true),
            TestPrompts.accepting())
        .close();
  }

  /** As in the attack that leaves messages out: one more before the lines are sealed. */
  @Test
  void aMessagePutIntoTheExchangeIsAnAlarm() throws Exception {
    List<List<String>> lists = new ArrayList<>();
    for (List<String> names : offered(SignInMethods.byPassword())) {
      lists.add(names);
    }
    List<String> exchanges = new ArrayList<>(lists.get(0));
    exchanges.removeIf(name -> name.startsWith("ext-info") || name.startsWith("kex-strict"));
    exchanges.add("kex-strict-s-v00@openssh.com");
    List<String> none = List.of("none");
    byte[] init =
        RawServer.kexInit(
            List.of(
                exchanges,
                lists.get(1),
                lists.get(2),
                lists.get(2),
                lists.get(3),
                lists.get(3),
                none,
                none,
                List.of(),
                List.of()));
    try (RawServer server =
        new RawServer(
            line -> {
              line.greet();
              line.packet(new byte[] {RawServer.IGNORE, 0, 0, 0, 0});
              line.packet(init);
              line.drain();
            })) {
      ConnectFailure told = failure(server, SignInMethods.byPassword());
      assertThat(told.reason()).isEqualTo(Reason.LINE_TAMPERED);
      assertThat(told.reason().isAlarm()).isTrue();
      assertThat(FailureWords.of(told).headline()).contains("put into the connection");
    }
  }

  @ParameterizedTest
  @CsvSource({
    "localhost, -2h:-1h, has expired",
    "gauge.example, +1h, is for another name",
  })
  void aHostCertificateThatDoesNotFitIsAnAlarm(String name, String valid, String words)
      throws Exception {
    Path authority = folder.resolve("hosts-authority");
    SystemSshd.run("ssh-keygen", "-q", "-t", "ed25519", "-N", "", "-f", authority.toString());
    SystemSshd sshd = start("HostCertificate " + folder.resolve("one/hostkey-cert.pub"));
    Path key = folder.resolve("one/hostkey.pub");
    Files.writeString(key, DemoKeys.publicLine(DemoKeys.pair("suite host"), "host"));
    SystemSshd.run(
        "ssh-keygen",
        "-q",
        "-s",
        authority.toString(),
        "-h",
        "-I",
        "gauge",
        "-n",
        name,
        "-V",
        valid,
        key.toString());
    sshd.restart();
    Files.writeString(
        folder.resolve("known_hosts"),
        "@cert-authority [localhost]:* " + Files.readString(folder.resolve("hosts-authority.pub")));
    ConnectFailure told =
        failure(
            loopback(),
            sshd.address(WARDEN),
            SignInMethods.byKey(sshd.keyFile()),
            TestPrompts.accepting());
    assertThat(told.reason()).isEqualTo(Reason.HOST_NOT_PROVED);
    assertThat(told.reason().isAlarm()).isTrue();
    assertThat(FailureWords.of(told).headline()).contains("could not prove");
    assertThat(FailureWords.of(told).detail()).contains(words);
  }
}
