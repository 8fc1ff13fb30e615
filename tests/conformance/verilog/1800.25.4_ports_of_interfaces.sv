// IEEE 1800-2017 clause 25.4: an interface with a clock of its own
interface bus(input logic clk);
  logic [7:0] data;
  logic valid = 0;
  task send(input logic [7:0] d);
    @(posedge clk);
    data <= d;
    valid <= 1;
    @(posedge clk);
    valid <= 0;
  endtask
endinterface
module t;
  logic clk = 0;
  always #1 clk = ~clk;
  bus b(clk);
  always @(posedge clk) if (b.valid) $display("%0t %h", $time, b.data);
  initial begin
    b.send(8'h5a);
    b.send(8'hc3);
    #4 $finish;
  end
endmodule
//> 3 5a
//> 7 c3
