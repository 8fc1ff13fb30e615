// IEEE 1364-2005 clause 9.7: event controls, edges with x and z, named events, wait
module t;
  reg clk, g; reg [3:0] v; event e; integer n; wire [3:0] w = v;
  always @(posedge clk) $display("%0t pos", $time);
  always @(negedge clk) $display("%0t neg", $time);
  always @(v) $display("%0t v=%b", $time, v);
  always @(e or posedge g) $display("%0t e or g", $time);
  always @* n = v + 1;
  initial begin
    #1 clk = 0; #1 clk = 1; #1 clk = 1'bx; #1 clk = 0; #1 clk = 1'bz; #1 clk = 1;
    #1 v = 4'b0001; #1 v = 4'b0001; #1 v[3] = 1; #1 -> e; #1 g = 1; #1 $display("n=%0d", n);
    fork
      begin wait (v == 5) $display("%0t waited", $time); end
      begin #2 v = 5; #1; end
    join
    wait (v == 5) $display("no wait");
    @(posedge v[0] or negedge v[2]) $display("never");
  end
  initial begin #30 v = 4'b0000; #1 $finish; end
endmodule
//> 1 neg
//> 2 pos
//> 3 neg
//> 4 neg
//> 5 pos
//> 6 pos
//> 7 v=0001
//> 9 v=1001
//> 10 e or g
//> 11 e or g
//> n=10
//> 14 v=0101
//> 14 waited
//> no wait
//> 30 v=0000
//> never
