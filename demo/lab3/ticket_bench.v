// One day at the berths. Each line it prints says what was tried and how it went.
`timescale 1ns/1ns
module ticket_bench;
  reg clk, clr_n, take;
  wire [3:0] ticket;
  wire last;
  integer i;

  ticket_counter berths(.clk(clk), .clr_n(clr_n), .take(take), .ticket(ticket), .last(last));

  task verdict(input ok, input [8*16:1] name);
    if (ok) $display("right: %0s", name);
    else $display("wrong: %0s (ticket %0d, last %b, at %0t ns)", name, ticket, last, $time);
  endtask

  task boat; begin #5 clk = 0; #5 clk = 1; end endtask

  initial begin
    clk = 1; clr_n = 0; take = 0;
    #1 verdict(ticket === 0, "clear at once");
    clr_n = 1;
    boat; verdict(ticket === 0, "nobody takes");
    take = 1;
    boat; verdict(ticket === 1, "first ticket");
    for (i = 0; i < 10; i = i + 1) boat;
    verdict(last === 1, "last berth");
    boat; verdict(ticket === 0 && last === 0, "begins again");
    boat;
    #2 clr_n = 0;
    #1 verdict(ticket === 0, "clear by day");
    $finish;
  end
endmodule
