/** The application and its desks, put together from the rooms beside this one. */
package zander.desk.model;
