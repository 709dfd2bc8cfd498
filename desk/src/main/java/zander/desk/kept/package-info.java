/** What lies on this computer of servers: by what it is sealed, how much it is, emptying it. */
@NullMarked
package zander.desk.kept;

import org.jspecify.annotations.NullMarked;
