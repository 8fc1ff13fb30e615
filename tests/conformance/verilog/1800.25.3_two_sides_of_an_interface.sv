// IEEE 1800-2017 clause 25.3: two modules meet on an interface with a handshake
interface hand #(parameter W = 4) (input logic clk);
  logic valid, ready;
  logic [W-1:0] data;
  modport from (input clk, ready, output valid, data);
  modport to (input clk, valid, data, output ready);
endinterface
module count (hand.from h);
  logic [3:0] n = 0;
  assign h.valid = n < 3, h.data = n;
  always_ff @(posedge h.clk) if (h.valid && h.ready) n <= n + 1;
endmodule
module take (hand.to h);
  logic turn = 0;
  assign h.ready = turn;
  always_ff @(posedge h.clk) begin
    turn <= ~turn;
    if (h.valid && h.ready) $display("%0d", h.data);
  end
endmodule
module t;
  logic clk = 0;
  hand h (.clk);
  count c (.h(h.from));
  take k (.h(h.to));
  initial repeat (20) #1 clk = ~clk;
endmodule
//> 0
//> 1
//> 2
