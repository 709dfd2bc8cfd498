package zander.core.transfer;

import org.jspecify.annotations.Nullable;
import zander.core.transfer.endpoint.DirectRoute;
import zander.core.transfer.endpoint.Source;
import zander.core.transfer.endpoint.Target;
import zander.core.transfer.progress.ProgressCounter;
import zander.core.transfer.progress.RateLimiter;
import zander.core.transfer.resume.ResumeLog;
import zander.core.transfer.rules.TransferRules;

/**
 * What the parts of one running transfer share.
 *
 * @param direct {@code null} where all goes through this computer
 */
record TransferContext(
    Source source,
    Target target,
    TransferRules rules,
    Retrier retrier,
    ProgressCounter counter,
    RateLimiter limiter,
    ResumeLog resumeLog,
    @Nullable DirectRoute direct) {}
