// IEEE 1800-2017 clause 10.8: both sides of an assignment give the width of a sum
module t;
  logic [3:0] a = 4'hf, b = 4'h1, s; logic ci = 1, co;
  assign {co, s} = a + b + ci;
  initial begin
    #1 $display("%b %h", co, s);
    a = 3; ci = 0; #1 $display("%b %h", co, s);
  end
endmodule
//> 1 1
//> 0 4
