// IEEE 1800-2017 clause 9.4.2.2: `@*` waits for the array and for the index
module t;
  logic [3:0] m [0:3];
  logic [1:0] i;
  logic [3:0] y;
  always @* y = m[i];
  initial begin
    m[0] = 5; m[1] = 6;
    i = 0;
    #1 $display("%0d", y);
    i = 1;
    #1 $display("%0d", y);
    m[1] = 9;
    #1 $display("%0d", y);
  end
endmodule
//> 5
//> 6
//> 9
