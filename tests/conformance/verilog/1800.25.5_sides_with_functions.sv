// IEEE 1800-2017 clause 25.5: a module asks its interface, and writes only what its side allows
interface bus #(int W = 8) (input logic clk);
  logic [W-1:0] data; logic valid, ready;
  function automatic logic moves(); return valid && ready; endfunction
  modport give(input clk, ready, output data, valid, import moves);
  modport take(input clk, data, valid, output ready, import moves);
endinterface
module giver(bus.give b);
  initial begin b.data = 0; b.valid = 1; end
  always_ff @(posedge b.clk) if (b.moves()) b.data <= b.data + 3;
endmodule
module taker(bus.take b, output logic [7:0] sum);
  logic [1:0] n = 0;
  assign b.ready = n[0];
  initial sum = 0;
  always_ff @(posedge b.clk) begin n <= n + 1; if (b.moves()) sum <= sum + b.data; end
endmodule
module t;
  logic clk = 0; wire [7:0] sum;
  bus #(.W(8)) b(clk);
  giver g(b.give); taker k(.b(b), .sum(sum));
  initial begin
    repeat (6) begin #1 clk = 1; #1 clk = 0; end
    $display("%0d %0d", b.data, sum);
  end
endmodule
//> 9 9
