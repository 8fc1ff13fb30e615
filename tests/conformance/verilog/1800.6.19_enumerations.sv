// IEEE 1800-2017 clause 6.19: names count up from 0
module t;
  typedef enum logic [1:0] {red, green, blue} colour;
  colour c;
  initial begin
    c = blue;
    $display("%0d %0d", green, c);
  end
endmodule
//> 1 2
