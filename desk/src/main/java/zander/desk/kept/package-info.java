/** What lies on this computer of servers: by what it is sealed, how much it is, emptying it. */
package zander.desk.kept;
