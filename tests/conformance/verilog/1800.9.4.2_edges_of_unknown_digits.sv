// IEEE 1800-2017 clause 9.4.2: to and from x and z are half of an edge
module t;
  logic c; int up = 0, down = 0;
  always @(posedge c) up++;
  always @(negedge c) down++;
  initial begin
    #1 c = 0; #1 c = 'x; #1 c = 1; #1 c = 'z; #1 c = 0; #1 c = 1; #1 c = 0;
    #1 $display("%0d %0d", up, down);
  end
endmodule
//> 3 4
