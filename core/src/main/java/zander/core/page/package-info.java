/**
 * A page of a site beside the file that makes it: the one origin that is reached, by this computer
 * or through the server, what it answers, and what the server's log says of that. No SSH types and
 * no interface code.
 */
@NullMarked
package zander.core.page;

import org.jspecify.annotations.NullMarked;
