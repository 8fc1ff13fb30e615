// IEEE 1800-2017 clause 25.3: signals that go together, seen through modports
interface bus #(parameter W = 4) (input logic clk);
  logic [W-1:0] data;
  logic valid;
  modport source (input clk, output data, valid);
  modport sink (input data, valid);
endinterface
module src (bus.source b);
  always_ff @(posedge b.clk) begin
    b.data <= b.data + 1;
    b.valid <= b.data[0];
  end
  initial b.data = 4;
endmodule
module snk (bus.sink b, output logic [4:0] y);
  assign y = {b.valid, b.data};
endmodule
module t;
  logic clk = 0;
  logic [4:0] y;
  bus b (.clk);
  src u (b.source);
  snk v (.b(b), .y);
  initial begin
    repeat (2) #1 clk = ~clk;
    #1 $display("%b", y);
    repeat (2) #1 clk = ~clk;
    #1 $display("%b %0d", y, b.data);
  end
endmodule
//> 00101
//> 10110 6
