// IEEE 1800-2017 clause 15.5.1: `->>` triggers when the step's other work is done
module t;
  event e;
  logic [3:0] a = 0;
  always @(e) $display("%0t a=%0d", $time, a);
  initial begin
    #1 ->> e;
    a <= 3;
    a = 1;
    #1 ->> #5 e;
    #2 ->> #1 e;
  end
endmodule
//> 1 a=3
//> 5 a=3
//> 7 a=3
